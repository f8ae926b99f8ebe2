//! target 8
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;

class ReadOnlyMapIsFilled {
    static void fill(Map<String, List<String>> source, String key) {
        Map<String, List<String>> map = Collections.unmodifiableMap(source);
        if (!map.containsKey(key)) map.put(key, new ArrayList<>()); //! likely
    }
}
