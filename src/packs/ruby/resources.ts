import type { Handle } from "../../core.js";

const row = (acquire: string): Handle => ({
  language: "ruby",
  acquire: `${acquire}(…)`,
  release: "handle.close",
});
/** Files of this program alone. */
const file = (acquire: string): Handle => ({ ...row(acquire), unseen: true });

/** What takes a block in Ruby's standard library. `File.new` takes none, so it becomes `File.open`. */
export const RESOURCES: readonly Handle[] = [
  ...["File.open", "File.new", "Dir.open", "StringIO.open", "CSV.open"].map(file),
  ...["Zlib::GzipReader.open", "Zlib::GzipWriter.open"].map(file),
  ...["IO.popen", "IO.open", "TCPSocket.open", "TCPSocket.new", "TCPServer.open", "TCPServer.new"].map(row),
  ...["UNIXSocket.open", "UNIXSocket.new", "PStore.open", "Kernel.open", "open"].map(row),
];
