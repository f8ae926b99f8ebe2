//! target 8
import java.io.IOException;
import java.util.Optional;

class CheckedExceptionInLambda {
    static String name(Optional<String> queen) throws IOException {
        return queen.isPresent() ? queen.get() : read();
    }

    static int count;

    static String read() throws IOException {
        if (count++ > 3) throw new IOException("gone");
        return "read";
    }
}
