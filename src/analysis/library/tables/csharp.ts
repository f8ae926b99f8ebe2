import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls, callsIn, classes } = rowsOf("csharp");

/** What the types of the language have, and what `System` and the namespaces below it have. */
export const CALLS: readonly LibraryCalls[] = [
  calls("string.IsNullOrEmpty string.IsNullOrWhiteSpace", {
    effect: "none",
    neverThrows: true,
    gives: "bool",
  }),
  calls("string.Format string.Concat string.Join", { effect: "none", asksArguments: true, gives: "string" }),
  calls("object.ReferenceEquals", { effect: "none", neverThrows: true, gives: "bool" }),
  calls("object.Equals", { effect: "none", asksArguments: true, gives: "bool" }),
  calls("int.Parse", { effect: "reads", gives: "int" }),
  calls("long.Parse", { effect: "reads", gives: "long" }),
  calls("double.Parse", { effect: "reads", gives: "double" }),
  calls("char.IsDigit char.IsLetter char.IsLetterOrDigit char.IsWhiteSpace char.IsUpper char.IsLower", {
    effect: "none",
    gives: "bool",
  }),
  calls(
    "string#Trim string#TrimStart string#TrimEnd string#ToUpper string#ToLower string#ToUpperInvariant " +
      "string#ToLowerInvariant string#Substring string#Replace string#Insert string#Remove string#PadLeft " +
      "string#PadRight string#ToString",
    { effect: "none", gives: "string" },
  ),
  calls("string#StartsWith string#EndsWith string#Contains string#Equals", { effect: "none", gives: "bool" }),
  calls("string#IndexOf string#LastIndexOf string#CompareTo string#GetHashCode", {
    effect: "none",
    gives: "int",
  }),
  calls("string#Split", { effect: "none", gives: "string[]" }),
  calls("string#ToCharArray", { effect: "none", gives: "char[]" }),

  callsIn("System", "String.IsNullOrEmpty String.IsNullOrWhiteSpace", {
    effect: "none",
    neverThrows: true,
    gives: "bool",
  }),
  callsIn("System", "String.Format String.Concat String.Join", {
    effect: "none",
    asksArguments: true,
    gives: "string",
  }),
  callsIn("System", "Object.ReferenceEquals", { effect: "none", neverThrows: true, gives: "bool" }),
  callsIn("System", "Math.Max Math.Min Math.Floor Math.Ceiling Math.Sqrt Math.Pow Math.Sin Math.Cos", {
    effect: "none",
    neverThrows: true,
  }),
  callsIn("System", "Math.Abs Math.Round", { effect: "none" }),
  callsIn("System", "Guid.NewGuid", { effect: "reads", gives: "Guid" }),
  callsIn("System", "DateTime.Parse", { effect: "reads", gives: "DateTime" }),
  callsIn("System", "Environment.GetEnvironmentVariable", { effect: "reads", orMissing: true }),
  callsIn("System", "Convert.ToInt32", { effect: "none", asksArguments: true, gives: "int" }),
  callsIn("System", "Convert.ToDouble", { effect: "none", asksArguments: true, gives: "double" }),
  callsIn("System", "Convert.ToBoolean", { effect: "none", asksArguments: true, gives: "bool" }),
  callsIn("System", "Console.WriteLine Console.Write", { effect: "prints", asksArguments: true }),
  callsIn("System.IO", "Path.Combine Path.GetFullPath Path.GetTempPath", {
    effect: "reads",
    gives: "string",
  }),
  callsIn("System.IO", "Path.GetFileName Path.GetDirectoryName Path.GetExtension", {
    effect: "none",
    orMissing: true,
  }),
  callsIn("System.IO", "File.Exists Directory.Exists", {
    effect: "reads",
    neverThrows: true,
    gives: "bool",
  }),
  callsIn("System.IO", "File.ReadAllText", { effect: "reads", gives: "string" }),
  callsIn("System.IO", "File.ReadAllLines", { effect: "reads", gives: "string[]" }),
  callsIn("System.IO", "File.ReadAllBytes", { effect: "reads", gives: "byte[]" }),
  callsIn("System.IO", "File.Open File.OpenRead File.OpenWrite File.Create", {
    effect: "changes",
    acquires: true,
    gives: "FileStream",
  }),
  callsIn("System.IO", "File.OpenText", { effect: "changes", acquires: true, gives: "StreamReader" }),
  callsIn("System.IO", "File.CreateText File.AppendText", {
    effect: "changes",
    acquires: true,
    gives: "StreamWriter",
  }),
];

/** Classes and types of the platform. */
export const CLASSES: readonly LibraryClasses[] = [
  classes(
    "bool byte sbyte short ushort int uint long ulong float double decimal char DateTime DateTimeOffset TimeSpan Guid",
    ["value"],
  ),
  classes(
    "string object dynamic String Object Array Type Exception Delegate Action Func Predicate EventHandler " +
      "PropertyChangedEventHandler Nullable List Dictionary HashSet SortedDictionary Queue Stack StringBuilder Stream " +
      "FileStream MemoryStream TextReader TextWriter StreamReader StreamWriter Regex Match Task Thread Timer Random " +
      "XmlNode XmlElement XmlDocument XElement Encoding CultureInfo MethodInfo PropertyInfo FieldInfo Attribute " +
      "IEnumerable IEnumerator IList ICollection IDictionary ISet IReadOnlyList IReadOnlyCollection " +
      "IReadOnlyDictionary IComparer IEqualityComparer IDisposable IFormatProvider IServiceProvider IQueryable " +
      "IAsyncResult ICloneable IComparable IEquatable IFormattable IObserver IObservable",
    ["plain-equality"],
  ),
  classes("Stream BufferedStream UnmanagedMemoryStream TextReader TextWriter BinaryReader BinaryWriter", [
    "scoped",
    "close-is-release",
  ]),
  classes("FileStream MemoryStream StreamReader StreamWriter StringReader StringWriter", [
    "scoped",
    "close-is-release",
    "unseen",
  ]),
  classes(
    "GZipStream DeflateStream CryptoStream NetworkStream SslStream PipeStream NamedPipeServerStream " +
      "NamedPipeClientStream XmlReader XmlTextReader JsonTextReader XmlWriter XmlTextWriter JsonTextWriter",
    ["scoped", "close-is-release"],
  ),
  classes(
    "IDisposable DbConnection DbCommand DbDataReader DbTransaction SqlConnection SqlCommand SqlDataReader " +
      "SqlTransaction OdbcConnection OdbcCommand OleDbConnection OleDbCommand SqliteConnection SqliteCommand " +
      "IDbConnection IDbCommand IDbTransaction IDataReader HttpClient HttpResponseMessage HttpRequestMessage WebClient " +
      "WebResponse HttpWebResponse TcpClient UdpClient Socket Process Timer Mutex Semaphore SemaphoreSlim " +
      "ManualResetEvent AutoResetEvent ManualResetEventSlim CancellationTokenSource RegistryKey Bitmap Graphics Image " +
      "Pen SolidBrush Font Icon MD5 SHA1 SHA256 SHA512 HMACSHA1 HMACSHA256 HMACSHA512 Aes RSA ICryptoTransform " +
      "RNGCryptoServiceProvider X509Certificate2 SmtpClient MailMessage Attachment ZipArchive FileSystemWatcher EventLog " +
      "PerformanceCounter IEnumerator",
    ["scoped"],
  ),
];
