//! target 14
//! run
class Main {
    enum Taste { SWEET, SOUR, BITTER }

    static String named(Taste taste) {
        switch (taste) { //! certain java/switch-expression
            case SWEET:
                return "honey";
            case SOUR: return "lemon"; // of course
        }
        return "other";
    }

    static Object counted(int n) {
        Object kind; //! certain java/switch-expression
        switch (n) {
            default:
                kind = null;
                break;
            case 1:
                kind = 1;
                break;
            case 2:
            case 3:
                kind = 2.5;
        }
        return kind;
    }

    static byte small(String word) {
        byte size = 0; // a value of its own
        switch (word) {
            case "a":
                size = 1;
            case "b":
                size = 2;
                break;
            default:
                size = 3;
        }
        return size;
    }

    static int thrown(int n) {
        switch (n) { //! certain java/switch-expression
            case 1:
                return 'a';
            case 2:
                return Integer.valueOf(7);
            default:
                throw new IllegalStateException("n" + n);
        }
    }

    public static void main(String[] args) {
        for (Taste taste : Taste.values()) System.out.println(named(taste));
        for (int n = 0; n < 4; n++) System.out.println(counted(n));
        System.out.println(small("a") + " " + small("b") + " " + small("c"));
        System.out.println(thrown(1) + " " + thrown(2));
        try {
            thrown(3);
        } catch (IllegalStateException e) {
            System.out.println(e.getMessage());
        }
        try {
            named(null);
        } catch (NullPointerException e) {
            System.out.println("nothing");
        }
    }
}
