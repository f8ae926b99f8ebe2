//! target 8
import java.util.HashMap;
import java.util.Map;

class OwnMapAnswersItsOwnWay {
    static class Defaults extends HashMap<String, Integer> {
        @Override public boolean containsKey(Object key) { return true; }
        @Override public Integer get(Object key) { return 7; }
    }
    static Integer look(Map<String, Integer> map, String key, Integer other) {
        return map.containsKey(key) ? map.get(key) : other; //! possible
    }
    static Integer sure(String key, Integer other) {
        Map<String, Integer> map = new HashMap<>();
        map.put("a", 1);
        return map.containsKey(key) ? map.get(key) : other; //! certain
    }
    static Integer own(String key, Integer other) {
        Map<String, Integer> map = new Defaults();
        return map.containsKey(key) ? map.get(key) : other;
    }
}
