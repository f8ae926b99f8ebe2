//! target 8
import java.util.Optional;

class WideningInOrElse {
    static double share(Optional<Integer> count) {
        return count.isPresent() ? count.get() : 0.5;
    }
    static int code(Optional<Character> letter) {
        return letter.isPresent() ? letter.get() : 48;
    }
    static String name(Optional<String> queen) {
        return queen.isPresent() ? queen.get() : "none"; //! certain
    }
}
