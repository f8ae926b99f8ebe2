// The demo's plan beside the built review page, so that the page can be looked at without a project of one's own.
import { cpSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const at = (path) => fileURLToPath(new URL(`../${path}`, import.meta.url));
const folder = mkdtempSync(join(tmpdir(), "uvran-demo-"));
try {
  const copy = join(folder, "thistledown");
  cpSync(at("examples/thistledown"), copy, { recursive: true });
  const { Workspace } = await import("../dist/workspace/index.js");
  const workspace = await Workspace.open(copy);
  const { plan } = await workspace.propose();
  writeFileSync(at("dist/review-desk/demo.json"), JSON.stringify(workspace.review(plan).desk()));
} finally {
  rmSync(folder, { recursive: true, force: true });
}
