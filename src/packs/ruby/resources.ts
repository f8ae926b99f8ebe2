import type { Handle } from "../../index.js";

const row = (acquire: string): Handle => ({
  language: "ruby",
  acquire: `${acquire}(…)`,
  release: "handle.close",
});

/** What takes a block in Ruby's standard library. `File.new` takes none, so it becomes `File.open`. */
export const RESOURCES: readonly Handle[] = [
  ...["File.open", "File.new", "IO.popen", "IO.open", "Dir.open", "TCPSocket.open", "TCPSocket.new"].map(row),
  ...["TCPServer.open", "TCPServer.new", "UNIXSocket.open", "UNIXSocket.new", "Zlib::GzipReader.open"].map(
    row,
  ),
  ...["Zlib::GzipWriter.open", "StringIO.open", "PStore.open", "CSV.open", "Kernel.open", "open"].map(row),
];
