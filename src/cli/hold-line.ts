import { compareLine, loadLine, storeLine, type LineEntry } from "../node/index.js";
import { folderOfPath, plural, type Stock } from "../report/index.js";
import type { Workspace } from "../workspace/index.js";

/** Compares with the recorded numbers of places; records them where there are none, and lower ones where asked to. */
export async function holdLine({ root, project }: Workspace, stock: Stock, tightens: boolean): Promise<void> {
  const counts = new Map<string, LineEntry>();
  for (const { rule, path } of stock.places) {
    const folder = folderOfPath(path);
    const places = (counts.get(`${rule}\0${folder}`)?.places ?? 0) + 1;
    counts.set(`${rule}\0${folder}`, { rule, folder, places });
  }
  const found = [...counts.values()];
  const recorded = loadLine(root);
  if (!recorded) {
    await storeLine(root, found);
    process.stderr.write(
      `${plural(stock.all.total, "place")} recorded in .uvran/line.jsonl. Commit it; from now on more of them fail.\n`,
    );
    return;
  }
  const rules = new Set(project.rules.map(({ id }) => id));
  const { risen, fallen } = compareLine(recorded, found, rules);
  for (const { rule, folder, places, was } of risen)
    process.stderr.write(`more places  ${folder}  ${rule}: ${was} recorded, ${places} now\n`);
  if (risen.length > 0) process.exitCode ??= 1;
  if (fallen.length === 0) return;
  const fewer = fallen.reduce((sum, { places, was }) => sum + was - places, 0);
  if (!tightens) {
    process.stderr.write(
      `${plural(fewer, "place")} fewer than recorded. Hold that with: uvran survey --hold-line --tighten\n`,
    );
    return;
  }
  const lower = new Map(fallen.map((one) => [`${one.rule}\0${one.folder}`, one.places]));
  await storeLine(
    root,
    recorded.map((one) => ({ ...one, places: lower.get(`${one.rule}\0${one.folder}`) ?? one.places })),
  );
  process.stderr.write(`The line is ${plural(fewer, "place")} lower now.\n`);
}
