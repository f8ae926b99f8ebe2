// What a call gives was taken for a class with a method that closes.
import java.io.*;

class HelperOfAnObject {
    String read(File file) throws IOException {
        Reader in = new FileReader(file);
        try {
            return name(in);
        } finally {
            closers().close(in);
        }
    }
}
