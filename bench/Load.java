import com.sun.net.httpserver.HttpServer;
import example.lanternbay.harbour.desk.HarbourDeskClient;
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
    private static byte[] request;
    private static byte[] answer;

    private Load() {}

    private static long run(String what, int seconds, Callable<?> call) throws Exception {
        AtomicLong calls = new AtomicLong();
        AtomicLong errors = new AtomicLong();
        CountDownLatch done = new CountDownLatch(CLIENTS);
        long end = System.nanoTime() + seconds * 1_000_000_000L;
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
        System.gc();
        Runtime machine = Runtime.getRuntime();
        System.out.printf(
                "%-10s %8d calls/s %6d errors %5d threads %6d MB heap%n",
                what,
                calls.get() / seconds,
                errors.get(),
                Thread.activeCount(),
                (machine.totalMemory() - machine.freeMemory()) >> 20);
        return calls.get();
    }

    public static void main(String[] arguments) throws Exception {
        int seconds = Integer.parseInt(arguments[0]);
        InetSocketAddress here = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        SoapServer soap = SoapServer.listen(here).publish("/desk", HarbourDeskEndpoint.of(new LanternBayDesk()));
        HarbourDeskClient client =
                HarbourDeskClient.connect(with -> with.address("http://127.0.0.1:" + soap.port() + "/desk"));
        client.with(with -> with.interceptor(new SoapInterceptor() {
                    @Override
                    public byte[] request(Call call, byte[] envelope) {
                        return request = envelope;
                    }

                    @Override
                    public byte[] answer(Call call, byte[] body) {
                        return answer = body;
                    }
                }))
                .listBerths(DEPTH);
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
        HttpClient http = HttpClient.newHttpClient();
        HttpRequest post = HttpRequest.newBuilder(
                        URI.create("http://127.0.0.1:" + bare.getAddress().getPort() + "/desk"))
                .header("Content-Type", "text/xml; charset=utf-8")
                .POST(HttpRequest.BodyPublishers.ofByteArray(request))
                .build();
        Callable<?> bareCall = () -> http.send(post, HttpResponse.BodyHandlers.ofByteArray());
        Callable<?> soapCall = () -> client.listBerths(DEPTH);
        StandIn standIn = StandIn.serve(
                ContractReader.read(DocumentGatherer.gather(List.of(arguments[1]), null)),
                here,
                Answers.NONE,
                any -> {});
        HarbourDeskClient played =
                client.with(with -> with.address(standIn.addresses().values().iterator().next()));
        Callable<?> playedCall = () -> played.listBerths(DEPTH);
        run("warm up", 5, bareCall);
        run("warm up", 5, soapCall);
        run("warm up", 5, playedCall);
        for (int i = 0; i < 3; i++) {
            long plain = run("bare", seconds, bareCall);
            long generated = run("generated", seconds, soapCall);
            long interpreted = run("stand-in", seconds, playedCall);
            System.out.printf(
                    "generated to bare %.2f, stand-in to generated %.2f%n",
                    (double) generated / plain, (double) interpreted / generated);
        }
        System.exit(0);
    }
}
