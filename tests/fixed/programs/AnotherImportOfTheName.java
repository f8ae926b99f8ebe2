//! rules java/optional-result
// A second import of the same name does not compile.
import com.yard.base.Optional;

class AnotherImportOfTheName {
    private String named(String key) { //! certain java/optional-result
        if (key.isEmpty()) return null;
        return key;
    }
    Optional<String> none() { return Optional.absent(); }
}
