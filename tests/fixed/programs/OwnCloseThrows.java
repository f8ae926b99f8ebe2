//! target 9
//! run
class OwnCloseThrows {
    static class Gate implements AutoCloseable {
        void pass() { throw new IllegalStateException("pass"); }
        @Override public void close() { throw new IllegalStateException("close"); }
    }
    static void run() {
        Gate gate = new Gate(); //! likely
        try {
            gate.pass();
        } finally {
            gate.close();
        }
    }
}
//! file Main.java
class Main {
    public static void main(String[] args) {
        try { OwnCloseThrows.run(); } catch (IllegalStateException e) { System.out.println(e.getMessage()); }
    }
}
