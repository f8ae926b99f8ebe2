import { no, shortened, unknown, yes } from "../../index.js";
import type { Answer, Handle, Match, SyntaxNode } from "../../index.js";
import { handleOf } from "../family/handles.js";

/** Types of the standard library that try with resources takes. */
export const CLOSEABLE = new Set(
  (
    "AutoCloseable Closeable InputStream OutputStream Reader Writer FileInputStream FileOutputStream FileReader " +
    "FileWriter BufferedInputStream BufferedOutputStream BufferedReader BufferedWriter InputStreamReader " +
    "OutputStreamWriter PrintWriter PrintStream DataInputStream DataOutputStream ObjectInputStream " +
    "ObjectOutputStream ByteArrayInputStream ByteArrayOutputStream StringReader StringWriter PushbackReader " +
    "PushbackInputStream LineNumberReader SequenceInputStream PipedInputStream PipedOutputStream CharArrayReader " +
    "CharArrayWriter RandomAccessFile Scanner Formatter Socket ServerSocket DatagramSocket MulticastSocket SSLSocket " +
    "ZipFile ZipInputStream ZipOutputStream GZIPInputStream GZIPOutputStream JarFile JarInputStream JarOutputStream " +
    "InflaterInputStream DeflaterOutputStream CheckedInputStream DigestInputStream CipherInputStream " +
    "CipherOutputStream Connection Statement PreparedStatement CallableStatement ResultSet RowSet FileChannel " +
    "SocketChannel ServerSocketChannel DatagramChannel AsynchronousFileChannel ReadableByteChannel " +
    "WritableByteChannel ByteChannel SeekableByteChannel Selector FileSystem DirectoryStream WatchService Stream " +
    "IntStream LongStream DoubleStream URLClassLoader XMLDecoder XMLEncoder AudioInputStream ImageInputStream " +
    "ImageOutputStream FileLock SecureDirectoryStream"
  ).split(" "),
);

/** The name of a type without packages and arguments. */
function bareName(type: string): string {
  return type
    .replace(/<[\s\S]*$/, "")
    .split(".")
    .at(-1)!
    .trim();
}

/** Does try with resources take a variable of this type that is filled by this expression? */
export function isCloseable(
  match: Match,
  type: SyntaxNode,
  made: SyntaxNode,
  rows: readonly Handle[],
): Answer {
  const own = handleOf(rows, made);
  if (own && own.row.scoped !== "itself" && own.row.scoped !== undefined)
    return no(`\`${shortened(made.text)}\` makes something that only has the method`, made);
  if (own) return own.answer;
  const created = made.is("object_creation_expression") ? made.child("type") : undefined;
  const name = bareName(type.is("var") || type.text === "var" ? (created?.text ?? "") : type.text);
  if (CLOSEABLE.has(name)) return yes(`\`${name}\` can be closed by the language`, type);
  const declared = declaredInProject(match, name);
  if (declared === "closeable") return yes(`\`${name}\` says that it can be closed`, type);
  if (declared === "not") return no(`\`${name}\` does not say that it can be closed`, type);
  return unknown(`nothing says that \`${name}\` is a resource of the language`, type);
}

/** What the project's own source says of a class: closeable by what it implements; unknown by its base. */
function declaredInProject(
  { tree, around }: Match,
  name: string,
  depth = 0,
): "closeable" | "not" | undefined {
  if (name === "" || depth > 4) return undefined;
  const form = new RegExp(`\\b(?:class|interface|record|enum)\\s+${name}\\b([^{]*)\\{`);
  const texts = [tree.text, ...[...(around.files?.naming(name) ?? [])].map(({ text }) => text)];
  for (const text of texts) {
    const head = form.exec(text)?.[1];
    if (head === undefined) continue;
    const parents = head.match(/\b[A-Z]\w*/g) ?? [];
    if (parents.length === 0) return "not";
    const known = parents.map((parent) =>
      CLOSEABLE.has(parent) ? "closeable" : declaredInProject({ tree, around } as Match, parent, depth + 1),
    );
    if (known.includes("closeable")) return "closeable";
    return known.every((one) => one === "not") ? "not" : undefined;
  }
  return undefined;
}
