//! target 8
import java.util.Optional;

class SpacesInACall {
    static String name(Optional<String> queen, Optional<String> aqueen) {
        String a = queen.isPresent( ) ? queen . get( ) : "none"; //! certain
        String b = queen.isPresent() ? aqueen.get() : "none";
        if (queen.isPresent()) System.out.println(queen.get()); //! likely
        return a + b;
    }
}
