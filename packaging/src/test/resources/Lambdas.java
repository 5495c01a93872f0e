import java.io.Serializable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.function.*;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Lambdas and method references of every kind that the language has; prints what they give. */
public class Lambdas {
    interface Wide {
        double of(byte a, short b, char c, int d, long e, float f, double g, boolean h, Object i);
    }

    interface Widening {
        long of(int value);
    }

    interface Boxing {
        Object of(int value);
    }

    interface Unboxing {
        int of(Integer value);
    }

    interface UnboxingWidely {
        double of(Character value);
    }

    interface Answer {
        boolean of(boolean value);
    }

    interface Letter {
        char of(char value);
    }

    interface Greeting {
        String name();

        default Supplier<String> greeting() {
            return () -> "ahoy, " + secret(name());
        }

        private String secret(String text) {
            return text.toUpperCase();
        }

        static Function<String, Greeting> of() {
            return name -> () -> name;
        }
    }

    interface Generic<T extends Comparable<T>> {
        T larger(T one, T other);
    }

    static class Base {
        protected String told = "base";

        protected String tell(String more) {
            return told + " " + more;
        }
    }

    static final class Derived extends Base {
        private final List<String> kept = new ArrayList<>();

        @Override
        protected String tell(String more) {
            Function<String, String> above = super::tell;
            Consumer<String> keep = kept::add;
            keep.accept(more);
            return above.apply(more) + " " + kept;
        }

        class Inner {
            Supplier<String> outer() {
                return () -> told + kept.size();
            }
        }
    }

    record Point(int x, long y) {
        private static Point origin() {
            return new Point(0, 0);
        }
    }

    enum Kind {
        ONE(value -> value + 1),
        TWO(value -> value * 2);

        private final IntUnaryOperator operator;

        Kind(IntUnaryOperator operator) {
            this.operator = operator;
        }
    }

    private int count;

    private void more() {
        count++;
    }

    private static long sum(int... values) {
        return IntStream.of(values).asLongStream().sum();
    }

    private static <T> T same(T value) {
        return value;
    }

    private static int recursive(int depth) {
        IntSupplier next = () -> depth == 0 ? 0 : 1 + recursive(depth - 1);
        return next.getAsInt();
    }

    public static String run() throws Exception {
        StringBuilder out = new StringBuilder();
        byte a = 1;
        short b = 2;
        char c = 'c';
        int d = 4;
        long e = 5;
        float f = 6.5f;
        double g = 7.25;
        boolean h = true;
        Object i = "i";
        Wide wide = (p, q, r, s, t, u, v, w, x) -> p + q + r + s + t + u + v + (w ? 1 : 0) + x.hashCode();
        out.append(wide.of(a, b, c, d, e, f, g, h, i)).append('\n');
        Supplier<String> all = () -> "" + a + b + c + d + e + f + g + h + i;
        out.append(all.get()).append('\n');
        Widening widening = Lambdas::same;
        Widening hash = Integer::hashCode;
        Boxing boxing = Integer::valueOf;
        Boxing plain = Math::abs;
        Unboxing unboxing = Math::negateExact;
        UnboxingWidely widely = Character::charValue;
        Answer answer = Lambdas::same;
        Letter letter = Lambdas::same;
        out.append(answer.of(true)).append(letter.of('b'));
        ToLongFunction<Integer> longer = value -> value;
        ToDoubleFunction<Integer> sqrt = Math::sqrt;
        out.append(widening.of(3)).append(hash.of(4)).append(boxing.of(5)).append(plain.of(-6)).append(unboxing.of(7))
                .append(widely.of('A')).append(longer.applyAsLong(8)).append(sqrt.applyAsDouble(9)).append('\n');
        IntFunction<int[]> array = int[]::new;
        Function<Integer, String[][]> arrays = String[][]::new;
        UnaryOperator<int[]> copy = int[]::clone;
        out.append(array.apply(3).length).append(arrays.apply(2).length)
                .append(Arrays.toString(copy.apply(new int[] {1, 2}))).append('\n');
        ToLongBiFunction<Integer, Integer> variable = Lambdas::sum;
        BiFunction<Integer, Long, Point> constructor = Point::new;
        Supplier<Point> origin = Point::origin;
        out.append(variable.applyAsLong(1, 2)).append(constructor.apply(3, 4L)).append(origin.get()).append('\n');
        Derived derived = new Derived();
        out.append(derived.tell("x")).append(derived.new Inner().outer().get()).append('\n');
        Greeting greeting = Greeting.of().apply("otter");
        out.append(greeting.greeting().get()).append('\n');
        Generic<String> generic = (one, other) -> one.compareTo(other) > 0 ? one : other;
        out.append(generic.larger("quay", "berth")).append('\n');
        Lambdas counter = new Lambdas();
        Runnable more = counter::more;
        more.run();
        Runnable ignored = () -> new ArrayList<String>().add("x");
        ignored.run();
        Runnable pops = System::currentTimeMillis;
        pops.run();
        Callable<Integer> call = () -> counter.count;
        out.append(call.call()).append(recursive(40)).append('\n');
        Map<String, List<Integer>> map = new TreeMap<>();
        map.computeIfAbsent("a", key -> new ArrayList<>()).add(1);
        ToIntFunction<List<Integer>> first = list -> list.get(0);
        Function<String, List<Integer>> get = map::get;
        ToIntFunction<String> size = map.get("a")::indexOf;
        out.append(first.applyAsInt(get.apply("a"))).append(size.applyAsInt("b")).append('\n');
        Map<String, Integer> lengths = Stream.of("b", "a", "cc")
                .sorted(Comparator.comparing(String::length).thenComparing(same(Comparator.naturalOrder())))
                .collect(Collectors.toMap(Function.identity(), String::length, Integer::sum, TreeMap::new));
        out.append(lengths).append('\n');
        for (Kind kind : Kind.values()) {
            out.append(kind).append(kind.operator.applyAsInt(10));
        }
        Supplier<Supplier<Supplier<String>>> nested = () -> () -> () -> "deep" + d;
        out.append(nested.get().get().get()).append('\n');
        Runnable serialized = (Runnable & Serializable) () -> out.append("kept as it is");
        serialized.run();
        List<Supplier<String>> same = new ArrayList<>();
        for (int turn = 0; turn < 2; turn++) {
            same.add(() -> "no capture");
        }
        out.append(same.get(0) == same.get(1)).append('\n');
        Object fault;
        try {
            Consumer<?> raw = (Consumer<Integer>) value -> out.append(value + 1);
            take(raw, "no number");
            fault = "none";
        } catch (ClassCastException refused) {
            fault = "refused";
        }
        Supplier<RuntimeException> thrown = IllegalStateException::new;
        return out.append(fault).append(thrown.get()).append('\n').toString();
    }

    @SuppressWarnings("unchecked")
    private static void take(Consumer<?> consumer, Object value) {
        ((Consumer<Object>) consumer).accept(value);
    }
}
