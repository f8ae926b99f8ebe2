import Handlebars from "handlebars";
import { WORK, type Count, type Stock } from "../stock/stock.js";
import { partsOfSentence, plainText } from "./escapes.js";
import type { Heading } from "./format.js";
import { BAR, PAGE } from "./html-page.js";
import { laidOut } from "./map.js";

const MOST_BARS = 40;
const MOST_TILES = 60;

/** A survey as one page that needs nothing else: no network, no other file. */
export function htmlReport(stock: Stock, heading: Heading): string {
  const most = Math.max(1, ...stock.byRule.map(({ total }) => total));
  const mostInFolder = Math.max(1, ...stock.byFolder.map(({ total }) => total));
  const hours = Math.max(0.1, ...stock.byFolder.map((one) => one.hours));
  const bars = (counts: readonly Count[], full: number): object[] =>
    counts.slice(0, MOST_BARS).map((one) => ({ ...one, ...partsOf(one, full) }));
  const view = {
    ...stock,
    ...heading,
    sum: partsOf(stock.all, Math.max(1, stock.all.total)),
    rules: bars(stock.byRule, most),
    folders: bars(stock.byFolder, mostInFolder),
    owners: bars(stock.byOwner, Math.max(1, ...stock.byOwner.map(({ total }) => total))),
    files: bars(stock.byFile.slice(0, 12), Math.max(1, ...stock.byFile.map(({ total }) => total))),
    tiles: laidOut(stock.byFolder.slice(0, MOST_TILES), (one) => one.hours).map((tile) => ({
      ...tile,
      shade: Math.round(15 + (70 * tile.of.hours) / hours),
      isWide: tile.width > 9 && tile.height > 13,
    })),
    works: WORK,
    ruleIds: stock.byRule.map(({ name }) => name),
    places: stock.places.map((place) => ({
      ...place,
      workClass: place.work.replaceAll(" ", "-"),
      trustShown: place.trust ?? "held back",
      difference: place.difference.map((line) => ({ ...line, lineClass: LINE_CLASSES[line.mark] })),
      reasons: [...place.evidence, ...place.cautions],
    })),
  };
  return plainText(template(view));
}

const LINE_CLASSES = { "-": "gone", "+": "come", " ": "", "…": "" } as const;

/** The widths of the parts of a bar, in per cent. */
function partsOf({ automatic, review, hand }: Count, full: number): object {
  const share = (n: number): number => Math.round((1000 * n) / full) / 10;
  return { automaticShare: share(automatic), reviewShare: share(review), handShare: share(hand) };
}

const page = Handlebars.create();
page.registerPartial("bar", BAR);
page.registerHelper("sentence", (words: string) => {
  const parts = partsOfSentence(words).map((part) => page.escapeExpression(part));
  return new page.SafeString(parts.map((part, i) => (i % 2 === 1 ? `<code>${part}</code>` : part)).join(""));
});
const template = page.compile(PAGE);
