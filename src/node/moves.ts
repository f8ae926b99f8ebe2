import { unknown } from "../analysis/index.js";
import { condition, type Moves, type Pack, type Rule } from "../rules/index.js";
import { Problem } from "./problem.js";
import { compareVersions, productVersion, shortVersion, type ProductVersion } from "./products.js";

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
}

const GOAL = /^(@?[^@]+)@v?(\d+(?:\.\d+)*)$/;

/** Reads `PRODUCT@VERSION`. Throws a Problem for what is neither. */
export function goalIn(text: string): Goal {
  const parts = GOAL.exec(text);
  if (!parts) throw new Problem(`"${text}" names no product and version. Write it like this: combwork@3.0`);
  return { product: parts[1]!, version: parts[2]! };
}

/**
 * How each product is moved for which there is a table. `versions` are those that the config gives. Throws a Problem where
 * the goal is a product without a table, or older than what is installed.
 */
export function journeys(
  root: string,
  packs: readonly Pack[],
  versions: Readonly<Record<string, string>>,
  goal: Goal | undefined,
): Journey[] {
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
    .map((one) => journeyOf(root, one, packs, versions[one.product], goal?.version));
}

function journeyOf(
  root: string,
  { product, language, steps }: Moves,
  packs: readonly Pack[],
  set: string | undefined,
  wanted: string | undefined,
): Journey {
  const found: ProductVersion | undefined =
    set === undefined ? productVersion(root, product, language) : { version: set, says: "by the config" };
  const from = found && shortVersion(found.version);
  const to = wanted ?? from;
  if (from !== undefined && to !== undefined && compareVersions(to, from) < 0)
    throw new Problem(
      `${product} ${to} is older than ${from}, which is installed ${found!.says}. Name a newer version.`,
    );
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
  };
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

/** The rule for a product whose version nothing says: what holds for a version that is only assumed is never certain. */
export function unsureOf(rule: Rule, product: string): Rule {
  const must = `the project has the version of ${product} that the new code is for`;
  const given = condition(must, () =>
    unknown("version.target", `nothing says which version of ${product} the project has`),
  );
  return { ...rule, given: [given, ...(rule.given ?? [])] };
}
