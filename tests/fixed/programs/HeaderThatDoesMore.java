// As header-that-does-more.js.
class HeaderThatDoesMore {
    void weigh(String[] jars) {
        for (int i = 0, scale = start(); i < jars.length; i++) { //! held: runs ahead of the loop
            weigh(jars[i]);
        }
    }
}
