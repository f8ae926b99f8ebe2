import { namesWithTrait, holes, java, trialsIn } from "../../core.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { isCloseable } from "./closeable.js";

const { marks, type, name, made } = holes({
  marks: "modifiers",
  type: "type",
  name: "name",
  made: { kind: "expression", node: ["object_creation_expression", "method_invocation"] },
});
const { reports, ignores } = trialsIn("java");
/** What opens something outside of the program; what is wrapped around a stream belongs to who made the stream. */
const OPENS =
  /\bnew\s+(java\.\w+\.)*(File(Reader|Writer|InputStream|OutputStream)|RandomAccessFile|(Server|Datagram|Multicast)?Socket|ZipFile|JarFile|URLClassLoader)\s*\(|\b(Files\.(new\w+|lines|list|walk|find)|FileChannel\.open|DriverManager\.getConnection|\w+\.(getConnection|prepareStatement|createStatement|executeQuery|openStream))\s*\(/;

export const leakingResource = leakRule({
  id: "java/leaking-resource",
  was: [java`${marks} ${type} ${name} = ${made};`],
  name,
  made,
  mentions: (language, library) => namesWithTrait("scoped", language, library),
  acquires: (match) =>
    OPENS.test(match.textOf(made)) && isCloseable(match, match.the(type), match.the(made), []).is === "yes",
  release: (use, match) =>
    callWritten(use, match.textOf(name), [
      "handle.close()",
      "((Closeable)handle).close()",
      "((AutoCloseable)handle).close()",
    ]),
  byException: true,
  never: true,
  yieldsTo: ["java/scoped-resource"],
  trials: [
    reports(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); if (a == null) return 1; int n = in.read(); in.close(); return n; } }\n",
      "where `return 1;` leaves",
    ),
    reports(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); int n = in.read(); in.close(); return n; } }\n",
      "when `in.read()` throws",
      "likely",
    ),
    reports(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); return in.read(); } }\n",
      "`in` is never released",
    ),
    ignores(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); try { return in.read(); } finally { try { in.close(); } catch (IOException e) { log(e); } } } }\n",
    ),
    ignores(
      "import java.io.*; class A { Reader f(File a) throws IOException { Reader in = new FileReader(a); return in; } }\n",
    ),
    ignores(
      "import java.io.*; class A { Reader f(File a) throws IOException { Reader in = new FileReader(a); return new BufferedReader(in); } }\n",
    ),
    ignores(
      "import java.io.*; class A { void f(File a) throws IOException { Reader in = new FileReader(a); try { in.read(); } finally { in.close(); } } }\n",
    ),
    ignores(
      "import java.io.*; class A { void f(File a) throws IOException { try (Reader in = new FileReader(a)) { in.read(); } } }\n",
    ),
    ignores(
      'import java.io.*; class A { int f() throws IOException { Reader in = new StringReader("a"); return in.read(); } }\n',
    ),
    ignores(
      "import java.io.*; class A { void f(File a) throws IOException { Reader in = new FileReader(a); this.in = in; } }\n",
    ),
    ignores(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); try { return in.read(); } finally { if (in != null) in.close(); } } }\n",
    ),
    ignores(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); try { return in.read(); } finally { if (null != in) { in.close(); } } } }\n",
    ),
    ignores(
      "import java.io.*; class A { int f(File a) throws IOException { Reader in = new FileReader(a); try { return in.read(); } finally { ((Closeable) in).close(); } } }\n",
    ),
    ignores(
      "import java.net.*; class A { int f(String a) throws Exception { Socket s = new Socket(a, 1); try { return s.getPort(); } finally { if (!s.isClosed()) s.close(); } } }\n",
    ),
    reports(
      "import java.net.*; class A { int f(String a) throws Exception { Socket s = new Socket(a, 1); try { return s.getPort(); } finally { if (s.isBound()) s.close(); } } }\n",
      "leaves",
    ),
  ],
});
