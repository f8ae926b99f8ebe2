//! target 8
import java.util.*;

class StarImportIsBeaten {
    static String name(Optional<String> queen) {
        return queen.isPresent() ? queen.get() : "none"; //! possible
    }
}
//! file Optional.java
class Optional<T> {
    T value;
    boolean isPresent() { return value != null; }
    T get() { return value; }
    T orElse(T other) { return other; }
}
