package almanac;

import example.lanternbay.tables.runtime.soap.CallRefusedException;
import example.lanternbay.tables.Day;
import example.lanternbay.tables.TablesGet;
import example.lanternbay.tables.TablesGetClient;
import example.lanternbay.tables.TablesGetEndpoint;
import example.lanternbay.tables.TablesPost;
import example.lanternbay.tables.TablesPostClient;
import example.lanternbay.tables.TablesPostEndpoint;
import example.lanternbay.tables.TideTables;
import example.lanternbay.tables.runtime.attach.Attachment;
import example.lanternbay.tables.runtime.soap.CallFailedException;
import example.lanternbay.tables.runtime.soap.SoapServer;
import example.lanternbay.tables.runtime.value.XmlDate;
import java.math.BigDecimal;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Operations called by HTTP without SOAP; what was seen is told as text. */
public final class TableCalls implements TablesGet, TablesPost {
    private final List<String> told = new ArrayList<>();
    private boolean cleared;

    @Override
    public BigDecimal highWater(String mark, XmlDate day) {
        told.add("asked for <" + mark + "> on " + day);
        if (mark.isEmpty()) {
            throw new IllegalStateException("no mark");
        }
        return new BigDecimal("4.25");
    }

    @Override
    public Day day(String mark, int number) {
        told.add("day " + number + " at <" + mark + ">");
        Day day = new Day().setDate(XmlDate.of("2027-05-09"));
        day.getLevel().add(new BigDecimal(number));
        return day;
    }

    @Override
    public Attachment chart(String mark) {
        return Attachment.of(mark.getBytes(StandardCharsets.UTF_8), "image/gif");
    }

    @Override
    public int note(Day day) {
        return day.getLevel().size();
    }

    @Override
    public void clear() {
        if (!cleared) {
            cleared = true;
            return;
        }
        throw CallRefusedException.notImplemented("the operation is not implemented");
    }

    private static String ask(HttpRequest.Builder request) throws Exception {
        HttpResponse<String> answer =
                HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
        return answer.statusCode() + " " + answer.headers().firstValue("Content-Type").orElse("-") + " "
                + answer.body().strip();
    }

    private static HttpRequest.Builder to(String address) {
        return HttpRequest.newBuilder(URI.create(address));
    }

    private static String failure(Runnable call, String base) {
        try {
            call.run();
            return "no failure";
        } catch (CallFailedException e) {
            return e.getMessage().replace(base, "BASE");
        }
    }

    /** Makes all calls. */
    public static String all() throws Exception {
        TableCalls almanac = new TableCalls();
        List<String> told = almanac.told;
        try (SoapServer server = SoapServer.listen(0)
                .publish("/get", TablesGetEndpoint.of(almanac))
                .publish("/post", TablesPostEndpoint.of(almanac))) {
            String base = "http://localhost:" + server.port();
            TablesGet get = TablesGetClient.connect(TideTables.GET, with -> with.address(base + "/get"));
            TablesPost post = TablesPostClient.connect(TideTables.POST, with -> with.address(base + "/post"));
            XmlDate day = XmlDate.of("2027-05-09Z");
            told.add("" + get.highWater("a&b=c d+é/?", day));
            told.add("" + post.highWater("a&b=c d+é/?", day));
            told.add("" + get.day("North mole/2 (old)", 7));
            Attachment chart = get.chart("m1");
            told.add(chart + " " + new String(chart.bytes(), StandardCharsets.UTF_8));
            told.add("" + post.note(get.day("x", 1)));
            post.clear();
            told.add(failure(post::clear, base));
            told.add(failure(() -> get.highWater("", day), base));
            TablesGet lost = TablesGetClient.connect(TideTables.GET, with -> with.address(base + "/nowhere"));
            told.add(failure(() -> lost.chart("m"), base));
            told.add(ask(to(base + "/get/highWater?day=2027-05-09&mark=x")));
            told.add(ask(to(base + "/get/highWater?mark=x")));
            told.add(ask(to(base + "/get/highWater?mark=x&day=soon")));
            told.add(ask(to(base + "/get/highWater?mark=x&day=2027-05-09&%3Cy=2")));
            told.add(ask(to(base + "/get/highWater").POST(HttpRequest.BodyPublishers.noBody())));
            told.add(ask(to(base + "/get/lowWater")));
            told.add(ask(to(base + "/post/note")
                    .header("Content-Type", "text/xml")
                    .POST(HttpRequest.BodyPublishers.ofString("<day/>"))));
            String shown = ask(to(base + "/get"));
            told.add("" + shown.contains("<http:address location=\"" + base + "/get\"/>"));
        }
        return String.join("\n", told) + "\n";
    }
}
