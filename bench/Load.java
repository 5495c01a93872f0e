import com.sun.net.httpserver.HttpServer;
import example.lanternbay.harbour.desk.Berth;
import example.lanternbay.harbour.desk.BerthOffer;
import example.lanternbay.harbour.desk.HarbourDesk;
import example.lanternbay.harbour.desk.Money;
import example.lanternbay.harbour.desk.Need;
import example.lanternbay.harbour.desk.Pass;
import example.lanternbay.harbour.desk.runtime.value.XmlDateTime;
import example.lanternbay.harbour.desk.runtime.value.XmlDuration;
import example.lanternbay.harbour.desk.HarbourDeskClient;
import example.lanternbay.harbour.vessels.Vessel;
import example.lanternbay.harbour.desk.HarbourDeskEndpoint;
import example.lanternbay.harbour.desk.runtime.soap.SoapInterceptor;
import example.lanternbay.harbour.desk.runtime.soap.SoapServer;
import example.lanternbay.office.LanternBayDesk;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;
import org.protypos.contract.ContractReader;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.source.DocumentGatherer;

/** Many clients at once, against a generated server and against a bare one that exchanges the same bytes: by turns, in one run; and against a stand-in. */
public final class Load {
    private static final int CLIENTS = 64;
    private static final BigDecimal DEPTH = new BigDecimal("2.5");
    private static Map<String, String> headers;
    private static byte[] request;
    private static byte[] answer;

    private Load() {}

    /** A desk that has nothing to work out: what is measured is the way there and back. */
    private static final class Desk implements HarbourDesk {
        private final List<Berth> free = new LanternBayDesk().listBerths(DEPTH);

        @Override
        public List<Berth> listBerths(BigDecimal deepEnoughFor) {
            return free;
        }

        @Override
        public BerthOffer requestBerth(Vessel vessel, XmlDateTime arrival, XmlDuration stay, List<Need> need) {
            throw new UnsupportedOperationException();
        }

        @Override
        public Vessel findVessel(String callSign) {
            throw new UnsupportedOperationException();
        }

        @Override
        public PayDuesResult payDues(String callSign, Money amount, Pass pass) {
            throw new UnsupportedOperationException();
        }

        @Override
        public void castOff(int berthNumber) {
            throw new UnsupportedOperationException();
        }
    }

    /** One side, with what it came to so far. */
    private record Side(String name, Callable<?> call, AtomicLong calls, AtomicLong errors) {
        Side(String name, Callable<?> call) {
            this(name, call, new AtomicLong(), new AtomicLong());
        }

        /** Has all clients call for a second. */
        void run() throws InterruptedException {
            CountDownLatch done = new CountDownLatch(CLIENTS);
            long end = System.nanoTime() + 1_000_000_000L;
            for (int i = 0; i < CLIENTS; i++) {
                new Thread(() -> {
                            while (System.nanoTime() < end) {
                                try {
                                    call.call();
                                    calls.incrementAndGet();
                                } catch (Exception e) {
                                    errors.incrementAndGet();
                                }
                            }
                            done.countDown();
                        })
                        .start();
            }
            done.await();
        }
    }

    /** The sides take turns by the second, so that what else the machine does meets all of them. */
    private static void run(String what, int seconds, List<Side> sides) throws InterruptedException {
        for (int i = 0; i < seconds; i++) {
            for (Side side : sides) {
                side.run();
            }
        }
        System.gc();
        Runtime machine = Runtime.getRuntime();
        for (Side side : sides) {
            System.out.printf(
                    "%-8s %-10s %8d calls/s %6d errors%n",
                    what, side.name(), side.calls().get() / seconds, side.errors().get());
        }
        System.out.printf(
                "%-8s %d threads, %d MB heap; generated to bare %.2f, stand-in to generated %.2f%n",
                what,
                Thread.activeCount(),
                (machine.totalMemory() - machine.freeMemory()) >> 20,
                (double) sides.get(1).calls().get() / sides.get(0).calls().get(),
                (double) sides.get(2).calls().get() / sides.get(1).calls().get());
    }

    public static void main(String[] arguments) throws Exception {
        int seconds = Integer.parseInt(arguments[0]);
        InetSocketAddress here = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        SoapServer soap = SoapServer.listen(here).publish("/desk", HarbourDeskEndpoint.of(new Desk()));
        HarbourDeskClient client =
                HarbourDeskClient.connect(with -> with.address("http://127.0.0.1:" + soap.port() + "/desk"));
        client.with(with -> with.interceptor(new SoapInterceptor() {
                    @Override
                    public byte[] request(Call call, byte[] envelope) {
                        headers = call.headers();
                        return request = envelope;
                    }

                    @Override
                    public byte[] answer(Call call, byte[] body, String charset) {
                        return answer = body;
                    }
                }))
                .listBerths(DEPTH);
        // Head and body are two packets, of which the second would wait for the other side to have acknowledged the first.
        System.setProperty("sun.net.httpserver.nodelay", "true");
        HttpServer bare = HttpServer.create(here, 0);
        bare.setExecutor(Executors.newFixedThreadPool(256));
        bare.createContext("/desk", exchange -> {
            exchange.getRequestBody().readAllBytes();
            exchange.getResponseHeaders().set("Content-Type", "text/xml; charset=utf-8");
            exchange.sendResponseHeaders(200, answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        bare.start();
        HttpClient http =
                HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
        HttpRequest.Builder post = HttpRequest.newBuilder(
                        URI.create("http://127.0.0.1:" + bare.getAddress().getPort() + "/desk"))
                .POST(HttpRequest.BodyPublishers.ofByteArray(request));
        headers.forEach(post::header);
        HttpRequest same = post.build();
        Callable<?> bareCall = () -> http.send(same, HttpResponse.BodyHandlers.ofByteArray());
        Callable<?> soapCall = () -> client.listBerths(DEPTH);
        StandIn standIn = StandIn.serve(
                ContractReader.read(DocumentGatherer.gather(List.of(arguments[1]), null)),
                here,
                Answers.NONE,
                any -> {});
        HarbourDeskClient played =
                client.with(with -> with.address(standIn.addresses().values().iterator().next()));
        Callable<?> playedCall = () -> played.listBerths(DEPTH);
        for (String what : List.of("warm up", "first", "second", "third")) {
            run(
                    what,
                    seconds,
                    List.of(
                            new Side("bare", bareCall),
                            new Side("generated", soapCall),
                            new Side("stand-in", playedCall)));
        }
        System.exit(0);
    }
}
