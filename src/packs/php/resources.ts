import type { Handle } from "../../core.js";

const row = (acquire: string, release: string): Handle => ({
  language: "php",
  acquire: `${acquire}(…)`,
  release,
  scoped: "none",
});

/** What PHP hands out as something to be given back. */
export const RESOURCES: readonly Handle[] = [
  ...["fopen", "tmpfile", "fsockopen", "stream_socket_client"].map((open) => row(open, "fclose(handle)")),
  row("popen", "pclose(handle)"),
  row("opendir", "closedir(handle)"),
  row("proc_open", "proc_close(handle)"),
  row("gzopen", "gzclose(handle)"),
];
