//! target 15
//! run
class Main {
    public static void main(String[] args) {
        show("select \"hive\"\n" + //! certain java/text-block
            "  from hives \n" +
            "\n" +
            "\twhere id = '\\n'\n");
        show("  two\n" //! certain java/text-block
            + "  and \"\"\"three\"\"\"\n"
            + "   more");
        show("ends\n" //! certain java/text-block
            + "with a\n"
            + "quote\"");
        show("octal \101\n" //! certain java/text-block
            + "tab\t\n"
            + "return\r\n");
        show("\"\"\"\"four\n" //! certain java/text-block
            + "five\"\"\"\"\"\n"
            + "six\"\"\"\"\"\" \n"
            + "three\"\"\"");
        show("two\"\"\n" //! certain java/text-block
            + "\\\"\n"
            + "and one\\\\\"");
        show("all\n" //! certain java/text-block
            + "of\n"
            + "it\\");
        show("a\\n"
            + "b\\n"
            + "c");
    }

    static void show(String text) {
        for (char c : text.toCharArray()) System.out.print((int) c + " ");
        System.out.println();
    }
}
