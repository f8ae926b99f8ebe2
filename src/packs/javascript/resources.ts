import type { Handle } from "../../core.js";

const row = (acquire: string, release: string, scoped: NonNullable<Handle["scoped"]>): Handle => ({
  language: "javascript",
  acquire: `${acquire}(…)`,
  release,
  scoped,
  unseen: true,
});

/** Files and folders that Node's own modules open. */
export const RESOURCES: readonly Handle[] = [
  row("fs.openSync", "fs.closeSync(handle)", "none"),
  row("fs.opendirSync", "handle.closeSync()", "none"),
  row("fs/promises.open", "await handle.close()", "itself"),
  row("fs.promises.open", "await handle.close()", "itself"),
  row("fs/promises.opendir", "await handle.close()", "itself"),
  row("fs.promises.opendir", "await handle.close()", "itself"),
];
