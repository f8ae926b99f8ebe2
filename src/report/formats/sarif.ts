import type { Log, ReportingDescriptor, Result } from "sarif";
import type { Edit } from "../../rewrite/index.js";
import type { Kind, Rule } from "../../rules/index.js";
import type { Place, Stock } from "../stock/stock.js";
import { pathAddress, plainText } from "./escapes.js";

const LEVELS: Readonly<Record<Kind, "error" | "warning" | "note">> = {
  breaks: "error",
  deprecated: "warning",
  idiom: "note",
  smell: "note",
};

/** The edits that a place's change makes to its file; empty for one without. */
export type EditsOf = (id: string) => readonly Edit[];

/**
 * A survey in the Static Analysis Results Interchange Format, version 2.1.0: with the rules, a result for each place, the
 * change as a fix, and a fingerprint that stays when lines move.
 */
export function sarifReport(
  { places }: Stock,
  rules: readonly Rule[],
  {
    version,
    editsOf,
    isWritable,
  }: { version: string; editsOf: EditsOf; isWritable: (path: string) => boolean },
): string {
  const used = rules.filter(({ id }) => places.some(({ rule }) => rule === id));
  const log: Log = {
    version: "2.1.0",
    $schema: "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json",
    runs: [
      {
        tool: { driver: { name: "Uvran", version, rules: used.map(descriptor) } },
        columnKind: "utf16CodeUnits",
        originalUriBaseIds: { ROOT: { description: { text: "The root of the project." } } },
        results: places.map((place) =>
          resultFor(place, used, isWritable(place.path) ? editsOf(place.id) : []),
        ),
      },
    ],
  };
  return JSON.stringify(log, null, 1) + "\n";
}

function descriptor({ id, title, why, kind, link }: Rule): ReportingDescriptor {
  return {
    id,
    shortDescription: { text: plainText(title) },
    fullDescription: { text: plainText(why) },
    ...(link === undefined ? {} : { helpUri: link }),
    defaultConfiguration: { level: LEVELS[kind] },
    properties: { kind },
  };
}

function resultFor(place: Place, rules: readonly Rule[], edits: readonly Edit[]): Result {
  const { id, rule, kind, path, range, says, evidence, cautions, trust, work, what, step, outcome, byName } =
    place;
  const artifactLocation = { uri: pathAddress(path), uriBaseId: "ROOT" };
  const { start, end } = range;
  const proof = outcome ? [outcome.says, ...outcome.lines] : [];
  const why = [...proof, ...evidence, ...cautions].map((sentence) => `\n- ${sentence}`).join("");
  return {
    ruleId: rule,
    ruleIndex: rules.findIndex((one) => one.id === rule),
    ...(outcome?.is === "passed" ? { kind: "pass", level: "none" } : { level: LEVELS[kind] }),
    message: { text: plainText(says + why) },
    locations: [
      {
        physicalLocation: {
          artifactLocation,
          region: {
            startLine: start.line,
            startColumn: start.column,
            endLine: end.line,
            endColumn: end.column,
          },
        },
      },
    ],
    partialFingerprints: { "uvranPlace/v1": id },
    properties: {
      what,
      work,
      ...(byName ? { byName } : {}),
      ...(trust === undefined ? {} : { trust }),
      ...(step === undefined ? {} : { step }),
    },
    ...(edits.length === 0
      ? {}
      : {
          fixes: [
            {
              description: { text: plainText(place.title) },
              artifactChanges: [
                {
                  artifactLocation,
                  replacements: edits.map((edit) => ({
                    deletedRegion: { charOffset: edit.start, charLength: edit.end - edit.start },
                    ...(edit.text === "" ? {} : { insertedContent: { text: edit.text } }),
                  })),
                },
              ],
            },
          ],
        }),
  };
}
