package bench;

import com.fasterxml.jackson.dataformat.xml.XmlMapper;
import com.fasterxml.jackson.dataformat.xml.annotation.JacksonXmlElementWrapper;
import com.fasterxml.jackson.dataformat.xml.annotation.JacksonXmlProperty;
import com.fasterxml.jackson.dataformat.xml.annotation.JacksonXmlRootElement;
import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.Documents;
import example.lanternbay.harbour.desk.ListBerthsResponse;
import example.lanternbay.harbour.desk.runtime.xml.XmlElement;
import java.io.ByteArrayInputStream;
import java.math.BigDecimal;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;

/** Reads and writes a harbour message by generated code, by code written by hand, and by a reflective mapper. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
public class Messages {
    private static final String NAMESPACE = "http://lanternbay.example/harbour/desk";

    /** The number of berths: 40 make about 5 KB, 40,000 about 5 MB. */
    @Param({"40", "40000"})
    public int berths;

    private byte[] message;
    private XmlElement<?> generated;
    private List<ByHand.Berth> byHand;
    private Mapped mapped;
    private XmlMapper mapper;

    /** The message as the mapper sees it. */
    @JacksonXmlRootElement(localName = "listBerthsResponse", namespace = NAMESPACE)
    public static class Mapped {
        @JacksonXmlElementWrapper(useWrapping = false)
        @JacksonXmlProperty(namespace = NAMESPACE)
        public List<MappedBerth> berth;
    }

    /** A berth as the mapper sees it. */
    public static class MappedBerth {
        @JacksonXmlProperty(namespace = NAMESPACE)
        public int number;

        @JacksonXmlProperty(namespace = NAMESPACE)
        public String quay;

        @JacksonXmlProperty(namespace = NAMESPACE)
        public BigDecimal depthInMetres;
    }

    /** Makes the message and what the writers start from. */
    @Setup
    public void prepare() throws Exception {
        ListBerthsResponse response = new ListBerthsResponse();
        for (int i = 0; i < berths; i++) {
            response.addBerth(new Berth()
                    .setNumber(i + 1)
                    .setQuay(i % 3 == 0 ? "Fish & ice quay" : "North quay " + i % 17)
                    .setDepthInMetres(new BigDecimal("7." + i % 10)));
        }
        generated = XmlElement.of(NAMESPACE, "listBerthsResponse", response);
        message = Documents.INSTANCE.write(generated);
        byHand = ByHand.read(new ByteArrayInputStream(message));
        mapper = new XmlMapper();
        mapped = mapper.readValue(message, Mapped.class);
        if (byHand.size() != berths || mapped.berth.size() != berths || !readGenerated().equals(generated)) {
            throw new IllegalStateException("the three do not read the same");
        }
    }

    @Benchmark
    public Object readByHand() throws Exception {
        return ByHand.read(new ByteArrayInputStream(message));
    }

    @Benchmark
    public Object readGenerated() {
        return Documents.INSTANCE.read(new ByteArrayInputStream(message));
    }

    @Benchmark
    public Object readMapped() throws Exception {
        return mapper.readValue(message, Mapped.class);
    }

    @Benchmark
    public Object writeByHand() throws Exception {
        return ByHand.write(byHand);
    }

    @Benchmark
    public Object writeGenerated() {
        return Documents.INSTANCE.write(generated);
    }

    @Benchmark
    public Object writeMapped() throws Exception {
        return mapper.writeValueAsBytes(mapped);
    }
}
