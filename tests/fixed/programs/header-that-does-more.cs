// As header-that-does-more.js.
class HeaderThatDoesMore {
    void Weigh(string[] jars) {
        for (int i = 0, scale = Start(); i < jars.Length; i++) { //! held: runs ahead of the loop
            Weigh(jars[i]);
        }
    }
}
