//! run
//! target 8
//! rules java/null-safe-equals
import java.util.*;

class Main {
    static boolean same(String a, String b) {
        return a == null ? b == null : a.equals(b); //! certain java/null-safe-equals
    }

    public static void main(String[] args) {
        List<String> names = new ArrayList<>();
        System.out.println(same(null, null) + " " + names);
    }
}
//! file Objects.java
class Objects {
    static boolean equals(Object a, Object b) { return false; }
}
