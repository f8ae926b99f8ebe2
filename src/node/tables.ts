import { readFileSync } from "node:fs";
import { basename, resolve } from "node:path";
import { changes, RuleError, type ChangeTable, type Pack } from "../rules/index.js";
import type { LanguageId } from "../syntax/index.js";
import { checkTable } from "./check-table.js";
import type { Goal, Moved } from "./moves.js";
import { ProductVersions } from "./products/index.js";
import { messageOf, Problem } from "./problem.js";
import { yamlPackage } from "./yaml.js";

/** The tables that ship, by the product that they are about. Only those of products that a project has are loaded. */
const SHIPPED_TABLES: Readonly<
  Record<string, { language: LanguageId; load: () => Promise<{ default: Pack }> }>
> = {
  "date-fns": { language: "javascript", load: () => import("../packs/moves/date-fns.js") },
};

/** The tables that ship for products that a project has installed, or that are to be moved. */
export async function shippedTables(
  { root, folders, products }: Moved,
  goal: Goal | undefined,
): Promise<Pack[]> {
  const packs: Pack[] = [];
  for (const [product, { language, load }] of Object.entries(SHIPPED_TABLES)) {
    const versions = new ProductVersions(root, product, language, products[product]);
    const isThere = [".", ...folders].some((folder) => versions.in(folder) !== undefined);
    if (goal?.product === product || isThere) packs.push((await load()).default);
  }
  return packs;
}

/** The pack of a table of changes in a JSON or YAML file. Throws a Problem that names the file, and the row where there is one. */
export async function loadTable(folder: string, path: string): Promise<Pack> {
  const file = resolve(folder, path);
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch (error) {
    throw new Problem(`The table ${file} cannot be read: ${messageOf(error)}`);
  }
  try {
    // JSON is YAML too; its own parser names the place of a fault better.
    const table = (file.endsWith(".json") ? JSON.parse(text) : yamlPackage().parse(text)) as ChangeTable;
    const pack = changes(table);
    await checkTable(file, table, pack);
    return pack;
  } catch (error) {
    if (error instanceof RuleError) throw new Problem(`${file}: ${error.message}`);
    if (error instanceof yamlPackage().YAMLParseError) {
      const [start] = error.linePos ?? [];
      const place = start ? `:${start.line}:${start.col}` : "";
      throw new Problem(`${file}${place}: this is no YAML: ${error.message.split("\n")[0]}`);
    }
    if (error instanceof SyntaxError) throw new Problem(`${basename(file)} is no JSON: ${error.message}`);
    throw error;
  }
}
