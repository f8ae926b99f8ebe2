import MiniSearch from "minisearch";
import contents from "virtual:contents";
import { GUIDES } from "./guides";
import { guideAddress, ruleAddress } from "./route";

/** Something that can be found. */
export interface Found {
  readonly address: string;
  readonly title: string;
  /** The rule's id, or the guide that it stands in. */
  readonly where: string;
}

interface Entry extends Found {
  readonly id: number;
  readonly text: string;
}

const MOST = 12;

const entries: Entry[] = [
  ...contents.packs.flatMap(({ rules }) =>
    rules.map((rule) => ({
      address: ruleAddress(rule.id),
      title: rule.title,
      where: rule.id,
      text: [rule.why, rule.example?.code, rule.example?.now, rule.reported?.code].join("\n"),
    })),
  ),
  ...contents.sections.map(({ guide, depth, heading, slug, text }) => ({
    address: depth === 1 ? guideAddress(guide) : guideAddress(guide, slug),
    title: heading,
    where: GUIDES.find(({ name }) => name === guide)!.title,
    text,
  })),
].map((entry, id) => ({ ...entry, id }));

const index = new MiniSearch<Entry>({
  fields: ["title", "where", "text"],
  storeFields: ["address", "title", "where"],
  // Signs of code are looked for as well: `?.`, `??`, `&&`.
  tokenize: (text) => text.match(/[\p{L}\p{N}_]+|[^\p{L}\p{N}_\s]+/gu) ?? [],
  searchOptions: {
    boost: { title: 4, where: 2 },
    prefix: true,
    fuzzy: (word) => (word.length > 4 ? 0.2 : false),
    combineWith: "AND",
  },
});
index.addAll(entries);

/** What fits the words best, rules and parts of guides. */
export function search(words: string): Found[] {
  return index
    .search(words)
    .slice(0, MOST)
    .map(({ address, title, where }) => ({
      address: String(address),
      title: String(title),
      where: String(where),
    }));
}
