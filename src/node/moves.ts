import { dirname } from "node:path/posix";
import { unknown } from "../analysis/index.js";
import { condition, type Match, type Moves, type Pack, type Rule } from "../rules/index.js";
import { Problem } from "./problem.js";
import { compareVersions, ProductVersions, shortVersion, type ProductVersion } from "./products/index.js";

/** Where a product is to go: `combwork@3`. */
export interface Goal {
  readonly product: string;
  readonly version: string;
}

/** The way of a product from the version that is installed to the one that is wanted. */
export interface Journey {
  readonly product: string;
  /** Undefined where nothing says it. */
  readonly from: string | undefined;
  /** What says where it starts, as the end of a sentence. */
  readonly says: string | undefined;
  readonly to: string | undefined;
  /** The versions to go through, in order; the last one is where it ends. */
  readonly steps: readonly string[];
  /** What a lock file and a manifest say differently. */
  readonly disagrees?: string;
  /** The versions that other folders have. */
  readonly elsewhere: readonly { readonly version: string; readonly says: string }[];
  /** The version that holds for a file, by its path from the root; undefined where nothing says it. */
  readonly versionAt: (path: string) => string | undefined;
}

const GOAL = /^(@?[^@]+)@v?(\d+(?:\.\d+)*)$/;

/** Reads `PRODUCT@VERSION`. Throws a Problem for what is neither. */
export function goalIn(text: string): Goal {
  const parts = GOAL.exec(text);
  if (!parts) throw new Problem(`"${text}" names no product and version. Write it like this: combwork@3.0`);
  return { product: parts[1]!, version: parts[2]! };
}

/** The same as a text. */
export const goalText = ({ product, version }: Goal): string => `${product}@${version}`;

/** The project whose products are moved. */
export interface Moved {
  readonly root: string;
  /** The folders that hold code, by their paths from the root. */
  readonly folders: readonly string[];
  /** The versions of products that the config names. */
  readonly products: Readonly<Record<string, string>>;
}

/**
 * How each product is moved for which there is a table. Throws a Problem where the goal is a product without a table, or
 * older than all that is installed.
 */
export function journeys(moved: Moved, packs: readonly Pack[], goal: Goal | undefined): Journey[] {
  const moves = [
    ...new Map(packs.flatMap(({ moves: one }) => (one ? [[one.product, one] as const] : []))).values(),
  ];
  const known = moves.map(({ product }) => product);
  if (goal && !known.includes(goal.product)) {
    const there =
      known.length === 0
        ? "no table of changes is in the config"
        : `there are tables for ${known.join(", ")}`;
    throw new Problem(`Nothing is known of "${goal.product}": ${there}.`);
  }
  return moves
    .filter(({ product }) => goal === undefined || goal.product === product)
    .map((one) => journeyOf(moved, one, packs, goal?.version));
}

function journeyOf(
  { root, folders, products }: Moved,
  { product, language, steps }: Moves,
  packs: readonly Pack[],
  wanted: string | undefined,
): Journey {
  const versions = new ProductVersions(root, product, language, products[product]);
  const [found, ...others] = installedIn(versions, folders);
  const from = found && shortVersion(found.version);
  const newestThere = newest([found, ...others].flatMap((one) => (one ? shortVersion(one.version) : [])));
  const to = wanted ?? newestThere;
  if (newestThere !== undefined && to !== undefined && compareVersions(to, newestThere) < 0) {
    const { says } = [found, ...others].findLast((one) => one !== undefined)!;
    throw new Problem(
      `${product} ${to} is older than ${newestThere}, which is installed ${says}. Name a newer version.`,
    );
  }
  const named = packs
    .filter((pack) => pack.moves?.product === product)
    .flatMap(({ rules }) => rules.flatMap(({ since }) => since ?? []));
  const between = [...steps, ...(wanted === undefined ? [] : [wanted])]
    .filter((step) => to !== undefined && compareVersions(step, to) <= 0)
    .filter((step) => from === undefined || compareVersions(step, from) > 0);
  const inOrder = [...between]
    .sort(compareVersions)
    .filter((step, i, all) => i === 0 || compareVersions(all[i - 1]!, step) !== 0);
  const asked = wanted === undefined ? [] : inOrder;
  return {
    product,
    from,
    says: found?.says,
    to: to ?? newest(named),
    steps: asked,
    ...(found?.disagrees === undefined ? {} : { disagrees: found.disagrees }),
    elsewhere: others.map(({ version, says }) => ({ version: shortVersion(version), says })),
    versionAt: (path) => versions.in(dirname(path))?.version,
  };
}

/** What folders of the project have, each version by each file once, the oldest first: that is where a journey starts. */
function installedIn(versions: ProductVersions, folders: readonly string[]): ProductVersion[] {
  const all = [".", ...folders].flatMap((folder) => versions.in(folder) ?? []);
  const once = [...new Map(all.map((one) => [`${one.version} ${one.says}`, one])).values()];
  return once.sort((a, b) => compareVersions(a.version, b.version));
}

const newest = (versions: readonly string[]): string | undefined =>
  [...versions].sort(compareVersions).at(-1);

interface Versions {
  readonly since?: string | undefined;
  readonly until?: string | undefined;
}

/** Does a rule speak of code for a version of its product? */
export function isFor({ since, until }: Versions, version: string): boolean {
  const begun = since === undefined || compareVersions(since, version) <= 0;
  return begun && (until === undefined || compareVersions(version, until) < 0);
}

/** The step of a journey in which a rule has its turn: the first version for which its new code is right. */
export function stepOf({ since }: Versions, { steps }: Journey): string | undefined {
  return steps.find((step) => since === undefined || compareVersions(since, step) <= 0);
}

/**
 * A rule of a table, in the places for whose version of the product it is: with a goal, in all. Where nothing says the version,
 * what holds for one that is only assumed is never certain.
 */
export function ruleOfTable(rule: Rule, { product, versionAt }: Journey, goal: Goal | undefined): Rule {
  if (goal) return rule;
  const versionIn = (match: Match): string | undefined => versionAt(match.around.path);
  const given = condition(
    `the project has the version of ${product} that the new code is for`,
    () => unknown("version.target", `nothing says which version of ${product} the project has`),
    { when: (match) => versionIn(match) === undefined },
  );
  const isDue = (match: Match): boolean => isFor(rule, versionIn(match) ?? rule.since ?? "0");
  return { ...rule, where: [...(rule.where ?? []), isDue], given: [given, ...(rule.given ?? [])] };
}
