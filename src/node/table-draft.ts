import { readFileSync } from "node:fs";
import type { YAMLMap } from "yaml";
import { changesInNotes, type Noted } from "../rules/index.js";
import { compareVersions } from "./products/index.js";
import { messageOf, Problem } from "./problem.js";
import { yamlPackage } from "./yaml.js";

/**
 * A first table of changes from a product's notes, as YAML: a row for each change that they list, with the line that it comes
 * from, and with what is missing said in a comment. Throws a Problem for a file that cannot be read, or that lists nothing.
 */
export function tableDraft(files: readonly string[]): string {
  const notes = files.map((file) => ({ file, ...changesInNotes(textOf(file), /\.rst$/.test(file)) }));
  const rows = notes.flatMap(({ file, changes }) => changes.map((change) => ({ file, change })));
  if (rows.length === 0)
    throw new Problem(
      `${files.join(", ")}: no list of changes was found, in the items of which a change is described.`,
    );
  const product = notes.map((one) => one.product).find((name) => name !== undefined);
  const since = rows.flatMap(({ change }) => change.since ?? []);
  const { Document, isMap, isSeq } = yamlPackage();
  const document = new Document({
    product: product ?? "",
    language: "",
    module: "",
    rows: rows.map(({ change }) => rowOf(change)),
  });
  const body = document.contents;
  if (isMap(body)) {
    const list = body.get("rows");
    if (isSeq(list))
      list.items.forEach((item, i) => {
        const { file, change } = rows[i]!;
        const missing = missingIn(change);
        const lines = [
          ` ${file}:${change.line}`,
          ...(missing === "" ? [] : [` to be completed: ${missing}`]),
        ];
        (item as YAMLMap).commentBefore = lines.join("\n");
        (item as YAMLMap).spaceBefore = i > 0;
      });
  }
  const unversioned = since.length < rows.length ? " Some changes stand under no version." : "";
  const newest = [...since].sort(compareVersions).at(-1);
  document.commentBefore =
    ` A first table, read off ${files.join(", ")}${newest === undefined ? "" : `, up to version ${newest}`}.${unversioned}\n` +
    " Nothing in it is more than the notes say: complete each row, and run uvran rules --try.";
  return document.toString({ lineWidth: 110 });
}

function rowOf({ note, since, kind, old, now, link, before, after }: Noted): object {
  const example = {
    ...(before === undefined ? {} : { old: `${before}\n` }),
    ...(after === undefined ? {} : { new: `${after}\n` }),
  };
  return {
    old: old ?? "",
    ...(now === undefined ? {} : { new: now }),
    ...(kind === undefined ? {} : { kind }),
    ...(since === undefined ? {} : { since }),
    ...(link === undefined || !/^https?:/.test(link) ? {} : { link }),
    note,
    ...(now === undefined ? { advice: note } : {}),
    example,
  };
}

function missingIn({ old, now, before, after, since }: Noted): string {
  return [
    ...(old === undefined ? ["the old code"] : ["where its names come from"]),
    ...(now === undefined ? ["the new code, where there is one"] : []),
    ...(before === undefined || (now !== undefined && after === undefined) ? ["the example"] : []),
    ...(since === undefined ? ["the version"] : []),
  ].join(", ");
}

function textOf(file: string): string {
  try {
    return readFileSync(file, "utf8");
  } catch (error) {
    throw new Problem(`The notes ${file} cannot be read: ${messageOf(error)}`);
  }
}
