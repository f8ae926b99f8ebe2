import { no, shortened, unknown, yes } from "../../index.js";
import type { Answer, Handle, Match, SyntaxNode } from "../../index.js";
import { handleOf } from "../family/handles.js";

/** Types of the standard library that can be disposed of. */
const DISPOSABLE =
  /^(IDisposable|.*Stream|.*(?:Stream|Text|String|Binary|Xml|Data|Json)(?:Reader|Writer)|.*(?:Db|Sql|Odbc|OleDb|Sqlite)(?:Connection|Command|DataReader|Transaction)|IDb(?:Connection|Command|Transaction)|IDataReader|HttpClient|HttpResponseMessage|HttpRequestMessage|WebClient|WebResponse|HttpWebResponse|TcpClient|UdpClient|Socket|Process|Timer|Mutex|Semaphore|SemaphoreSlim|ManualResetEvent|AutoResetEvent|ManualResetEventSlim|CancellationTokenSource|CancellationTokenRegistration|RegistryKey|Bitmap|Graphics|Image|Pen|SolidBrush|Font|Icon|MD5|SHA1|SHA256|SHA512|HMACSHA\d+|Aes|RSA|ICryptoTransform|RNGCryptoServiceProvider|X509Certificate2|SmtpClient|MailMessage|Attachment|ZipArchive|FileSystemWatcher|EventLog|PerformanceCounter|IEnumerator<.*>)$/;

/** Types whose `Close()` is all that `Dispose()` does. */
const CLOSE_DISPOSES =
  /(Stream|Reader|Writer|Connection|TcpClient|UdpClient|Socket|WebResponse|RegistryKey)$/;

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
    return no(`\`${shortened(made.text)}\` makes something that only has the method`, made);
  if (own) return own.answer;
  const created = made.is("object_creation_expression") ? made.child("type")?.text : undefined;
  const written = type.text === "var" ? (created ?? "") : type.text;
  const name = written.replace(/^(?:\w+\.)*/, "").replace(/\?$/, "");
  if (DISPOSABLE.test(name)) {
    return released === "Dispose" || CLOSE_DISPOSES.test(name)
      ? yes(`\`${name}\` can be disposed of`, type)
      : unknown(`\`${released}\` may do something else than \`Dispose\``, type);
  }
  const bare = name.replace(/<.*$/, "");
  const declared = bare === "" ? undefined : declaredInProject(match, bare);
  if (declared === "not") return no(`\`${bare}\` cannot be disposed of`, type);
  if (declared === "disposable" && released === "Dispose")
    return yes(`\`${bare}\` says that it can be disposed of`, type);
  if (declared === "disposable")
    return unknown(`\`${released}\` may do something else than \`Dispose\``, type);
  return unknown(
    bare === ""
      ? `the type of \`${shortened(made.text)}\` is not known`
      : `nothing says that \`${bare}\` can be disposed of`,
    type,
  );
}

/** What the project's own source says of a class. */
function declaredInProject({ tree, around }: Match, name: string): "disposable" | "not" | undefined {
  const form = new RegExp(`(partial\\s+)?\\b(?:class|struct|interface|record)\\s+${name}\\b([^{;]*)[{;]`);
  for (const text of [tree.text, ...[...(around.files?.naming(name) ?? [])].map((file) => file.text)]) {
    const found = form.exec(text);
    if (!found) continue;
    const parents = found[2]!.match(/\b[A-Z]\w*/g) ?? [];
    if (parents.some((parent) => DISPOSABLE.test(parent))) return "disposable";
    return parents.length === 0 && found[1] === undefined ? "not" : undefined;
  }
  return undefined;
}
