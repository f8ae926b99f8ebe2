import { Hole } from "../pattern/index.js";
import {
  choice,
  countedItem,
  filled,
  filledItem,
  guarded,
  hasKey,
  item,
  onlyIf,
  present,
  takenSafely,
  tested,
  truthy,
  type AlsoAsks,
  type Reading,
} from "../readings/index.js";
import type { RuleSpec } from "../rules/index.js";
import type { NodeId } from "../syntax/index.js";
import { Parts } from "./build.js";
import type { About, Candidate } from "./candidate.js";
import { isEdited } from "./chosen-conditions.js";
import { codeOf, type Placed } from "./code.js";
import type { Generalised, Opened } from "./generalise.js";
import type { Instance } from "./instances.js";
import type { Keys } from "./keys.js";
import { languageOfRule, type DraftHole } from "./model.js";
import { matchesOf, outermostAround } from "./probe.js";
import { written } from "./written.js";

/** A reading that a draft is tried with. */
interface Form {
  /** The holes, in the order in which they are written. */
  readonly holes: Readonly<Record<string, "expression" | "statements">>;
  readonly make: (holes: Readonly<Record<string, Hole>>) => Reading;
  /** How it is written, with the functions of `uvran` that it needs. */
  readonly source: string;
  readonly imports: readonly string[];
  /** What a rule of that kind is called. */
  readonly slug: string;
  /** What becomes of it, where that is worked out and no snippet. */
  readonly becomes?: {
    readonly work: Exclude<RuleSpec["becomes"], undefined>;
    readonly source: string;
    readonly imports: readonly string[];
  };
}

/** What a test may ask for besides, from nothing to the truth. */
const ALSO: readonly (AlsoAsks & { readonly source: string })[] = [
  { source: "" },
  { or: ["truth"], source: ', { or: ["truth"] }' },
  { or: ["key"], source: ', { or: ["key"] }' },
  { or: ["value"], source: ', { or: ["value"] }' },
];

/** A value, or what it falls back to where it is missing. */
function fallbackForm({ source, ...also }: (typeof ALSO)[number]): Form {
  return {
    holes: { value: "expression", fallback: "expression" },
    make: ({ value, fallback }) => choice(present(value!, also), value!, fallback!),
    source: `choice(present(value${source}), value, fallback)`,
    imports: ["choice", "present"],
    slug: "fallback-if-missing",
  };
}

const FORMS: readonly Form[] = [
  ...ALSO.map(({ source, ...also }): Form => ({
    holes: { place: "expression", value: "expression" },
    make: ({ place, value }) => filled(place!, value!, also),
    source: `filled(place, value${source})`,
    imports: ["filled"],
    slug: "filled-if-missing",
  })),
  {
    holes: { map: "expression", key: "expression", made: "expression" },
    make: ({ map, key, made }) => filledItem(item(map!, key!), made!),
    source: "filledItem(item(map, key), made)",
    imports: ["filledItem", "item"],
    slug: "item-if-missing",
  },
  {
    holes: { map: "expression", key: "expression", step: "expression" },
    make: ({ map, key, step }) => countedItem(item(map!, key!), step!),
    source: "countedItem(item(map, key), step)",
    imports: ["countedItem", "item"],
    slug: "counted-item",
  },
  {
    holes: { map: "expression", key: "expression", fallback: "expression" },
    make: ({ map, key, fallback }) => choice(hasKey(item(map!, key!)), item(map!, key!), fallback!),
    source: "choice(hasKey(item(map, key)), item(map, key), fallback)",
    imports: ["choice", "hasKey", "item"],
    slug: "item-or-fallback",
  },
  {
    holes: { map: "expression", key: "expression", fallback: "expression" },
    make: ({ map, key, fallback }) =>
      choice(present(item(map!, key!), { or: ["key"] }), item(map!, key!), fallback!),
    source: 'choice(present(item(map, key), { or: ["key"] }), item(map, key), fallback)',
    imports: ["choice", "present", "item"],
    slug: "item-or-fallback",
  },
  fallbackForm(ALSO[0]!),
  {
    holes: { value: "expression", fallback: "expression" },
    make: ({ value, fallback }) => choice(truthy(value!), value!, fallback!),
    source: "choice(truthy(value), value, fallback)",
    imports: ["choice", "truthy"],
    slug: "fallback-if-false",
  },
  ...ALSO.slice(1).map(fallbackForm),
  {
    holes: { subject: "expression", read: "expression", otherwise: "expression" },
    make: ({ subject, read, otherwise }) =>
      guarded(subject!, read!, otherwise!, { as: ["statement", "choice", "and", "or"] }),
    source: 'guarded(subject, read, otherwise, { as: ["statement", "choice", "and", "or"] })',
    imports: ["guarded"],
    slug: "read-if-there",
    becomes: {
      work: (match) => takenSafely(match.chain),
      source: "(match) => takenSafely(match.chain)",
      imports: ["takenSafely"],
    },
  },
  {
    holes: { test: "expression", then: "expression", otherwise: "expression" },
    make: ({ test, then, otherwise }) => choice(present(test!), then!, otherwise!),
    source: "choice(present(test), then, otherwise)",
    imports: ["choice", "present"],
    slug: "value-if-there",
  },
  {
    holes: { test: "expression", then: "expression", otherwise: "expression" },
    make: ({ test, then, otherwise }) => choice(truthy(test!), then!, otherwise!),
    source: "choice(truthy(test), then, otherwise)",
    imports: ["choice", "truthy"],
    slug: "value-if-true",
  },
  {
    holes: { value: "expression", body: "statements" },
    make: ({ value, body }) => onlyIf(present(value!), body!),
    source: "onlyIf(present(value), body)",
    imports: ["onlyIf", "present"],
    slug: "only-if-there",
  },
  {
    holes: { value: "expression" },
    make: ({ value }) => tested(value!),
    source: "tested(value)",
    imports: ["tested"],
    slug: "test-for-missing",
  },
];

/** A reading that finds an edit, with the new expression for it. */
export interface Read {
  readonly form: Form;
  readonly drafted: Generalised;
  /** The same for edits that are the same move. */
  readonly signature: string;
}

/** The readings with which an edit could be said, the narrowest first. */
export async function readingsFor(instance: Instance, keys: Keys): Promise<Read[]> {
  const found: Read[] = [];
  for (const form of FORMS) {
    const drafted = await draftedBy(form, instance, keys);
    if (!drafted) continue;
    const signature = `${form.source} → ${form.becomes?.source ?? written(drafted.becomes)}`;
    found.push({ form, drafted, signature });
  }
  return found;
}

/** The parts of a form for an edit, if it reads the old code and they account for the new code. */
async function draftedBy(form: Form, instance: Instance, keys: Keys): Promise<Generalised | undefined> {
  const { file, before, after } = instance;
  const holes = holesOf(form);
  const parts = new Parts();
  const made = form.make(Object.fromEntries(holes.map((hole) => [hole.name, parts.hole(hole)])));
  const { language, text } = file.before;
  const spec = specOf({ id: `${languageOfRule(language)}/drafted`, title: "drafted", why: "drafted" }, made);
  // Where a statement stands in the file makes no difference to how it reads.
  const around = outermostAround(before, []);
  const shifted = (offset: number): number => offset + around.start;
  let matches: Awaited<ReturnType<typeof matchesOf>>;
  try {
    const { start, end } = around;
    matches = await matchesOf({ ...spec, trials: [] }, [
      { path: file.path, text: text.slice(start, end), language },
    ]);
  } catch {
    return undefined;
  }
  for (const { path, match } of matches) {
    if (!isEdited({ path, start: shifted(match.found.start), end: shifted(match.found.end) }, [instance]))
      continue;
    const captured = holes.map((hole) => {
      const value = parts.hole(hole);
      const nodes = match.has(value) ? match.all(value).map(({ id }) => id) : [];
      return { hole, key: nodes.length === 0 ? undefined : keys.ofRun(match.tree, nodes) };
    });
    const count = (code: Placed[], hole: DraftHole): number =>
      code.filter(({ part }) => part.is === "hole" && part.hole === hole).length;
    const root = form.becomes
      ? after.nodes[0]
      : smallestWith(
          instance,
          captured.map(({ key }) => key),
          keys,
        );
    if (root === undefined) continue;
    const placed = form.becomes ? [] : placedIn(instance, root, captured, keys);
    const becomes = codeOf({ tree: after.tree, nodes: [root] }, placed);
    // Code of the old place that no hole stands for does not fit another one.
    const used = captured.filter(({ hole }) =>
      placed.some(({ part }) => part.is === "hole" && part.hole === hole),
    );
    if (!form.becomes && used.length < captured.filter(({ key }) => key !== undefined).length) continue;
    const opened = captured.map(({ hole }, i): Opened => {
      const after = count(placed, hole);
      // What is tested is evaluated again when it is used; the rest of a reading is evaluated once.
      const isTested = i === 0 && form.becomes === undefined;
      return {
        hole,
        kinds: [hole.kind],
        times: { before: isTested ? 2 : after, after },
        isOwn: false,
        isBetween: false,
      };
    });
    const was = codeOf(before, []);
    return { was, becomes, opened, fresh: [], needs: [], isBare: false };
  }
  return undefined;
}

function holesOf(form: Form): DraftHole[] {
  return Object.entries(form.holes).map(([name, kind]) => ({ name, kind }));
}

function specOf(about: About, was: Reading): Omit<RuleSpec, "trials"> {
  return { ...about, kind: "idiom", was, becomes: () => [] };
}

/** The smallest node of the new code in which all that was captured stands. */
function smallestWith(
  { after }: Instance,
  wanted: readonly (number | undefined)[],
  keys: Keys,
): NodeId | undefined {
  const { tree, nodes } = after;
  const all = wanted.filter((key) => key !== undefined);
  let best: NodeId | undefined;
  const holds = (n: NodeId): boolean => {
    const inside = new Set<number>();
    for (let m = n; m < tree.after[n]!; m++) inside.add(keys.of(tree, m));
    return all.every((key) => inside.has(key));
  };
  let at = nodes.find((n) => tree.isNamed(n) && holds(n));
  while (at !== undefined) {
    best = at;
    at = tree.children(at).find((child) => tree.isNamed(child) && holds(child));
  }
  return best;
}

function placedIn(
  { after: { tree } }: Instance,
  root: NodeId,
  captured: readonly { readonly hole: DraftHole; readonly key: number | undefined }[],
  keys: Keys,
): Placed[] {
  const found: Placed[] = [];
  const visit = (n: NodeId): void => {
    const key = keys.of(tree, n);
    const known = captured.find((one) => one.key === key);
    if (known && tree.isNamed(n))
      found.push({ run: { tree, nodes: [n] }, part: { is: "hole", hole: known.hole } });
    else for (const child of tree.children(n)) visit(child);
  };
  visit(root);
  return found;
}

/** What a candidate needs to be tried: the rule without its trials, and how its old code is written. */
export function specFor({ form, drafted }: Read, about: About): Pick<Candidate, "spec" | "parts" | "old"> {
  const parts = new Parts();
  const holes = Object.fromEntries(drafted.opened.map(({ hole }) => [hole.name, parts.hole(hole)]));
  const isStatements = drafted.opened.some(({ hole }) => hole.kind === "statements");
  const becomes =
    form.becomes?.work ?? parts.snippet(drafted.becomes, isStatements ? undefined : "expression");
  return {
    parts,
    old: {
      source: form.source,
      imports: form.imports,
      ...(form.becomes ? { becomes: form.becomes.source, becomesImports: form.becomes.imports } : {}),
    },
    spec: { ...about, kind: "idiom", was: form.make(holes), becomes },
  };
}
