import type { Edit } from "../../../core.js";
import { ExportsWriter } from "./exports.js";
import { isCommonJs } from "./code-file.js";
import type { Forms } from "./forms.js";
import { writeHead } from "./head.js";
import { writeLoads } from "./loads.js";
import { Page } from "./page.js";
import type { Reading } from "./reading.js";
import { strictDirective } from "./strict.js";

/** The edits that make a file a module; none for one that uses nothing of CommonJS. Throws a NotAModule where there is no good way to write it. */
export function writtenAsModule(file: Reading, forms: Forms): Edit[] {
  if (!isCommonJs(file.tree)) return [];
  const page = new Page(file, forms);
  const late = writeLoads(page);
  const values = new ExportsWriter(page).write();
  writeHead(page, late, values);
  // A module is strict by itself.
  const directive = strictDirective(page.tree);
  if (directive) page.drop(directive);
  return page.edits();
}
