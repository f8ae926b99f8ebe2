//! rules java/null-safe-equals
// An import by name beats an import of the whole package: `Objects` means the yard's class here.
import com.yard.base.Objects;
import java.util.*;

class NameThatHidesAStarImport {
    List<String> names = new ArrayList<>();
    boolean same(String a, String b) {
        return a == null ? b == null : a.equals(b); //! certain java/null-safe-equals
    }
    String shown() { return Objects.shown(names); }
}
