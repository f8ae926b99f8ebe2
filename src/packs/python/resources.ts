import type { Handle } from "../../core.js";

const row = (acquire: string, scoped: NonNullable<Handle["scoped"]>, release: string): Handle => ({
  language: "python",
  acquire: `${acquire}(…)`,
  release,
  scoped,
});
const closes = (...functions: string[]): Handle[] =>
  functions.map((name) => row(name, "itself", "handle.close()"));
/** Files of this program alone. */
const closesFile = (...functions: string[]): Handle[] =>
  closes(...functions).map((one) => ({ ...one, unseen: true }));
/** What only has the method: leaving a \`with\` block does something else, or there is none. */
const onlyCloses = (...functions: string[]): Handle[] =>
  functions.map((name) => row(name, "closing", "handle.close()"));

/**
 * Resources of Python's standard library. A pool of processes is not here: leaving its block stops the workers, where
 * \`close\` lets them finish.
 */
export const RESOURCES: readonly Handle[] = [
  ...closesFile("open", "io.open", "io.FileIO", "os.fdopen", "codecs.open", "fileinput.input"),
  ...closesFile("gzip.open", "gzip.GzipFile", "bz2.open", "bz2.BZ2File", "lzma.open", "lzma.LZMAFile"),
  ...closesFile("tarfile.open", "zipfile.ZipFile", "zipfile.PyZipFile", "wave.open"),
  ...closes("mmap.mmap"),
  ...closesFile("tempfile.TemporaryFile", "tempfile.NamedTemporaryFile", "tempfile.SpooledTemporaryFile"),
  ...closes("socket.socket", "socket.create_connection", "socket.create_server"),
  ...closes("shelve.open", "dbm.open", "selectors.DefaultSelector", "urllib.request.urlopen"),
  row("smtplib.SMTP", "itself", "handle.quit()"),
  row("smtplib.SMTP_SSL", "itself", "handle.quit()"),
  row("tempfile.TemporaryDirectory", "itself", "handle.cleanup()"),
  row("concurrent.futures.ThreadPoolExecutor", "itself", "handle.shutdown()"),
  row("concurrent.futures.ProcessPoolExecutor", "itself", "handle.shutdown()"),
  ...onlyCloses("sqlite3.connect", "http.client.HTTPConnection", "http.client.HTTPSConnection"),
  ...onlyCloses("xmlrpc.client.ServerProxy", "asyncio.new_event_loop"),
];
