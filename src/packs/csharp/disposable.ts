import {
  classesNamed,
  isLibraryType,
  no,
  placeOf,
  shortened,
  typeWritten,
  unknown,
  yes,
} from "../../index.js";
import type { Answer, Handle, KnownType, Match, OwnClass, OwnMember, SyntaxNode } from "../../index.js";
import { handleOf } from "../family/handles.js";

const words = (text: string): string[] => text.split(" ");

const STREAMS = words(
  "Stream FileStream MemoryStream BufferedStream GZipStream DeflateStream CryptoStream NetworkStream SslStream " +
    "PipeStream NamedPipeServerStream NamedPipeClientStream UnmanagedMemoryStream",
);
const READERS = words(
  "TextReader StreamReader StringReader BinaryReader XmlReader XmlTextReader JsonTextReader",
);
const WRITERS = words(
  "TextWriter StreamWriter StringWriter BinaryWriter XmlWriter XmlTextWriter JsonTextWriter",
);

/** Types of the standard library that can be disposed of. */
const DISPOSABLE = [
  ...STREAMS,
  ...READERS,
  ...WRITERS,
  ...words(
    "IDisposable DbConnection DbCommand DbDataReader DbTransaction SqlConnection SqlCommand SqlDataReader " +
      "SqlTransaction OdbcConnection OdbcCommand OleDbConnection OleDbCommand SqliteConnection SqliteCommand " +
      "IDbConnection IDbCommand IDbTransaction IDataReader HttpClient HttpResponseMessage HttpRequestMessage WebClient " +
      "WebResponse HttpWebResponse TcpClient UdpClient Socket Process Timer Mutex Semaphore SemaphoreSlim " +
      "ManualResetEvent AutoResetEvent ManualResetEventSlim CancellationTokenSource RegistryKey Bitmap Graphics Image " +
      "Pen SolidBrush Font Icon MD5 SHA1 SHA256 SHA512 HMACSHA1 HMACSHA256 HMACSHA512 Aes RSA ICryptoTransform " +
      "RNGCryptoServiceProvider X509Certificate2 SmtpClient MailMessage Attachment ZipArchive FileSystemWatcher EventLog " +
      "PerformanceCounter IEnumerator",
  ),
];

const LIBRARY = { names: DISPOSABLE, module: undefined, what: "type that can be disposed of" };

/** Names that such types usually end in, which says nothing for sure. */
const LOOKS = /(Stream|Reader|Writer|Connection|Command|Transaction|Client)$/;

/** Types whose `Close()` is all that `Dispose()` does. */
const CLOSE_DISPOSES = [...STREAMS, ...READERS, ...WRITERS];

/** What opens a file, or reads from memory: nobody else sees when it is closed. */
const OPENS =
  /^(new\s+(System\.IO\.)?(FileStream|StreamReader|StreamWriter|StringReader|StringWriter|MemoryStream)\b|(System\.IO\.)?File\.(Open|Create|Append)\w*$)/;

/** The type of the variable, or of what it is given where the compiler is to find out. */
function typeOfVariable(type: SyntaxNode, made: SyntaxNode): KnownType | undefined {
  const created = made.is("object_creation_expression") ? made.child("type") : undefined;
  const written = type.text === "var" ? created : type;
  return written && typeWritten(written);
}

/** Is what is made a file or memory, which nobody else can see being closed? */
export function isUnseen(match: Match, made: SyntaxNode): boolean {
  const called = made.text.replace(/\(.*$/s, "").trim();
  const name = called
    .replace(/^new\s+/, "")
    .split(".")
    .at(-1)!;
  const owner = called.split(".")[0]!;
  const own = [...classesNamed(match.tree, name).classes, ...classesNamed(match.tree, owner).classes];
  const argument = made.child("arguments")?.parts[0];
  const isWrapped =
    argument?.is(["identifier", "member_access_expression"]) === true && /^new\s/.test(called);
  return OPENS.test(called) && own.length === 0 && (!isWrapped || isText(argument));
}

/** Is an argument a path, and not another stream? */
function isText(argument: SyntaxNode): boolean {
  return /path|file|name/i.test(argument.text) || argument.is("string_literal");
}

/** Is what is acquired certainly something, and not null? */
export function isNeverNull(made: SyntaxNode): Answer {
  const called = made.text.replace(/\(.*$/s, "").trim();
  return made.is(["object_creation_expression", "implicit_object_creation_expression"]) || OPENS.test(called)
    ? yes("value.null", `\`${shortened(made.text)}\` is never null`, made)
    : unknown("value.null", `\`${shortened(made.text)}\` could be null, for which the old code failed`, made);
}

/** Can `using` take a variable of this type that is filled by this expression? */
export function isDisposable(
  match: Match,
  type: SyntaxNode,
  made: SyntaxNode,
  rows: readonly Handle[],
  released: string,
): Answer {
  const own = handleOf(rows, made);
  if (own && own.row.scoped !== "itself" && own.row.scoped !== undefined)
    return no(
      "resource.closeable",
      `\`${shortened(made.text)}\` makes something that only has the method`,
      made,
    );
  if (own) return own.answer;
  const known = typeOfVariable(type, made);
  if (!known || known.name === "var")
    return unknown("type.not-known", `the type of \`${shortened(made.text)}\` is not known`, type);
  const { name } = known;
  const declared = declaredInProject(match, name, released);
  if (declared)
    return declared.is === "yes" ? yes(declared.evidence.code, declared.evidence.says, type) : declared;
  if (!DISPOSABLE.includes(name))
    return LOOKS.test(name)
      ? unknown("resource.closeable", `only the name of \`${name}\` says that it can be disposed of`, type)
      : unknown("resource.closeable", `nothing says that \`${name}\` can be disposed of`, type);
  const library = isLibraryType(known, LIBRARY, type);
  if (library.is !== "yes") return library;
  return released === "Dispose" || CLOSE_DISPOSES.includes(name)
    ? yes("resource.closeable", `\`${name}\` can be disposed of`, type)
    : unknown("resource.same-release", `\`${released}\` may do something else than \`Dispose\``, type);
}

/** What the project's own source says of a class; undefined where it declares none of the name. */
function declaredInProject(match: Match, name: string, released: string): Answer | undefined {
  const { classes } = classesNamed(match.tree, name);
  const [first] = classes;
  if (!first) return undefined;
  const where = placeOf(first);
  if (classes.some(({ kind, head }) => kind === "struct_declaration" || /\bstruct\b/.test(head)))
    return no(
      "resource.closeable",
      `\`${name}\` is a value type (${where}), of which \`using\` would hold a copy`,
    );
  const chain = ancestry(match, name);
  const isOne = chain.classes.some(({ parents }) =>
    parents.some((parent) => isLibraryDisposable(match, parent)),
  );
  if (!isOne)
    return chain.isWhole && classes.every(({ head }) => !/\bpartial\b/.test(head))
      ? no("resource.closeable", `\`${name}\` cannot be disposed of (${where})`)
      : unknown("resource.closeable", `what \`${name}\` is derived from is not known (${where})`);
  if (released !== "Dispose")
    return unknown("resource.same-release", `\`${released}\` may do something else than \`Dispose\``);
  const disposes = chain.classes.flatMap(({ members }) =>
    members.filter((one) => one.as === "method" && one.name === "Dispose" && isWithoutArguments(one)),
  );
  const odd = disposes.find(({ text }) =>
    /\bIDisposable\s*\.\s*Dispose\b|^\s*(public\s+)?new\b|\bnew\s+(public\s+)?void\b/.test(text),
  );
  if (odd)
    return unknown(
      "resource.same-release",
      `\`using\` may call another \`Dispose\` of \`${name}\` than the old code (line ${odd.line})`,
    );
  return yes("resource.closeable", `\`${name}\` says that it can be disposed of`);
}

const isWithoutArguments = ({ text }: OwnMember): boolean => /\bDispose\s*\(\s*\)/.test(text);

function isLibraryDisposable(match: Match, name: string): boolean {
  return DISPOSABLE.includes(name) && classesNamed(match.tree, name).classes.length === 0;
}

/** A class of the project with all that it is derived from in the project; whole where nothing else is among it. */
function ancestry(match: Match, name: string): { classes: readonly OwnClass[]; isWhole: boolean } {
  const found: OwnClass[] = [];
  const seen = new Set<string>();
  const waiting = [name];
  let isWhole = true;
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const { classes } = classesNamed(match.tree, next);
    if (classes.length === 0) isWhole = false;
    found.push(...classes);
    waiting.push(...classes.flatMap(({ parents }) => parents));
  }
  return { classes: found, isWhole };
}

/** May a call make something that can be disposed of? */
export function looksDisposable(made: SyntaxNode, rows: readonly Handle[]): boolean {
  const type = made.is("object_creation_expression") ? made.child("type") : undefined;
  const name = type && typeWritten(type)?.name;
  const opens = OPENS.test(made.text.replace(/\(.*$/s, "").trim());
  return handleOf(rows, made) !== undefined || opens || (name !== undefined && DISPOSABLE.includes(name));
}
