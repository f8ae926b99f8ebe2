//! run
//! target 8
// What a type parameter stands for in `throws` is worked out for a call, and not for a reference.
import java.util.Collections;
import java.util.List;
import java.util.function.Function;

class Main {
    interface Frames<E, X extends Exception> { E next() throws X; }
    interface Brood extends Frames<String, IllegalStateException> { }

    static <E, X extends Exception> List<E> listOf(Frames<? extends E, X> frames) throws X {
        return Collections.singletonList(frames.next());
    }

    static <T> T run(Function<Brood, T> f) { return f.apply(() -> "a"); }

    public static void main(String[] args) {
        System.out.println(run(frames -> Main.listOf(frames)).size()); //! held: throws what a type parameter
    }
}
