import type { PhrasingContent, Root, RootContent, Table } from "mdast";
import { gfmTableToMarkdown } from "mdast-util-gfm-table";
import { toMarkdown } from "mdast-util-to-markdown";
import type { Checked } from "../stock/proved.js";
import type { Count, Place, Stock } from "../stock/stock.js";
import { partsOfSentence, plainText } from "./escapes.js";
import type { Heading } from "./format.js";

const MOST_ROWS = 30;
const MOST_PLACES = 50;

/** A survey in Markdown, fit for a merge request. */
export function markdownReport(stock: Stock, { title, journey, compared }: Heading): string {
  const { all, filesRead, filesTouched, bySteps, byRule, byFolder, byOwner, places, notCovered } = stock;
  const { automatic, review, hand } = stock.effort;
  const inCode = ({ name }: Count): PhrasingContent[] => [code(name)];
  const inWords = ({ name }: Count): PhrasingContent[] => [text(name)];
  const children: RootContent[] = [
    { type: "heading", depth: 1, children: [text(title)] },
    paragraph(
      { type: "strong", children: [text(`${all.total} places`)] },
      text(
        ` in ${filesTouched} of ${filesRead} files: ${all.automatic} automatic, ${all.review} to review, ` +
          `${all.hand} by hand. About ${all.hours} hours.`,
      ),
    ),
    ...list([...journey, ...compared]),
    ...checkTable(stock.checks),
    ...table("Step", bySteps, inWords),
    ...table("Rule", byRule, ({ name, link }) =>
      link === undefined ? [code(name)] : [{ type: "link", url: link, children: [code(name)] }],
    ),
    ...(byFolder.length > 1 ? table("Folder", byFolder, inCode) : []),
    ...table("Owner", byOwner, inWords),
    ...(places.length > 0
      ? [{ type: "heading", depth: 2, children: [text("Places")] } satisfies RootContent]
      : []),
    ...places.slice(0, MOST_PLACES).flatMap(placeLines),
    ...more(places.length - MOST_PLACES, "places"),
    ...(notCovered.length > 0
      ? [
          paragraph(
            text(
              `Not covered: files of other kinds (${notCovered.map(({ ending, files }) => `${ending} ${files}`).join(", ")}).`,
            ),
          ),
        ]
      : []),
    paragraph(
      text(
        `Hours are reckoned with ${automatic} minutes for an automatic place, ${review} for one to review, ${hand} for one by hand.`,
      ),
    ),
  ];
  return written({ type: "root", children });
}

/** Words as they stand in a line of Markdown, or in a cell of a table. */
export function markdownText(words: string): string {
  const line = { type: "root", children: [paragraph(text(words))] } satisfies Root;
  return written(line).trimEnd().replaceAll("|", "\\|");
}

function written(root: Root): string {
  return toMarkdown(root, { extensions: [gfmTableToMarkdown({ tablePipeAlign: false })], bullet: "-" });
}

function sentence(value: string): PhrasingContent[] {
  return partsOfSentence(value).flatMap((part, i) =>
    part === "" ? [] : [i % 2 === 1 ? code(part) : text(part)],
  );
}

const text = (value: string): PhrasingContent => ({ type: "text", value: oneLine(value) });
const code = (value: string): PhrasingContent => ({ type: "inlineCode", value: oneLine(value) });
const oneLine = (value: string): string => plainText(value).replace(/\r?\n/g, " ");

function paragraph(...children: PhrasingContent[]): RootContent {
  return { type: "paragraph", children };
}

function list(lines: readonly string[]): RootContent[] {
  if (lines.length === 0) return [];
  return [
    {
      type: "list",
      spread: false,
      children: lines.map((line) => ({
        type: "listItem",
        children: [{ type: "paragraph", children: sentence(line.trim()) }],
      })),
    },
  ];
}

function more(count: number, what: string): RootContent[] {
  return count > 0 ? [paragraph(text(`… and ${count} more ${what}.`))] : [];
}

function table<T extends Count>(
  head: string,
  counts: readonly T[],
  shown: (one: T) => PhrasingContent[],
): RootContent[] {
  if (counts.length === 0) return [];
  const heads = [head, "places", "share", "automatic", "to review", "by hand", "by name alone", "files"];
  const rows = counts
    .slice(0, MOST_ROWS)
    .map((one) => [
      shown(one),
      ...[one.total, `${one.percent} %`, one.automatic, one.review, one.hand, one.byName, one.files].map(
        (value) => [text(String(value))],
      ),
    ]);
  return [
    tableOf(
      [heads.map((one) => [text(one)]), ...rows],
      heads.map((_, i) => (i === 0 ? null : "right")),
    ),
    ...more(counts.length - MOST_ROWS, "rows"),
  ];
}

function tableOf(rows: readonly PhrasingContent[][][], align: Table["align"]): Table {
  return {
    type: "table",
    align: align ?? null,
    children: rows.map((cells) => ({
      type: "tableRow",
      children: cells.map((children) => ({ type: "tableCell", children })),
    })),
  };
}

function checkTable(checks: readonly Checked[]): RootContent[] {
  if (checks.length === 0) return [];
  const rows = checks.map(({ name, command, verdict, says }) => [
    [text(name)],
    [text(verdict)],
    [text(says)],
    [code(command)],
  ]);
  const different = checks.flatMap(({ name, lines }): RootContent[] =>
    lines.length === 0
      ? []
      : [
          paragraph(text(`What is different in ${name}:`)),
          { type: "code", value: plainText(lines.join("\n")) },
        ],
  );
  return [
    tableOf(
      [["Check", "verdict", "says", "command"].map((head) => [text(head)]), ...rows],
      [null, null, null, null],
    ),
    ...different,
  ];
}

function placeLines({
  path,
  line,
  rule,
  trust,
  work,
  says,
  evidence,
  cautions,
  code: lines,
  difference,
  outcome,
}: Place): RootContent[] {
  const shown: RootContent =
    difference.length > 0
      ? {
          type: "code",
          lang: "diff",
          value: plainText(difference.map((one) => one.mark + one.text).join("\n")),
        }
      : {
          type: "code",
          value: plainText(
            lines
              .map((one) => `${one.isHit ? ">" : " "} ${String(one.line).padStart(4)}  ${one.text}`)
              .join("\n"),
          ),
        };
  return [
    { type: "heading", depth: 3, children: [code(`${path}:${line}`)] },
    paragraph(...sentence(says), text(" ("), code(rule), text(`, ${trust ?? "held back"}, ${work})`)),
    shown,
    ...list([...(outcome ? [outcome.says] : []), ...evidence, ...cautions]),
    ...(outcome && outcome.lines.length > 0
      ? [{ type: "code", value: plainText(outcome.lines.join("\n")) } satisfies RootContent]
      : []),
  ];
}
