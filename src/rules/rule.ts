import type { Evidence, Library } from "../analysis/index.js";
import { checkPattern, Snippet, type Need } from "../pattern/index.js";
import { isReading, type Reading } from "../readings/index.js";
import type { Segment } from "../rewrite/index.js";
import { allLanguages, type Language, type LanguageId } from "../syntax/index.js";
import { authorFault } from "./author-faults.js";
import type { Narrowing } from "./around.js";
import type { Condition } from "./condition.js";
import { KINDS, type Kind } from "./levels.js";
import type { Handle } from "./handle.js";
import type { Match } from "./match.js";
import type { RuleOptions } from "./options.js";
import type { Trial } from "./trial.js";
import type { EveryUse } from "./uses/every-use.js";
import type { Renaming } from "./uses/renaming.js";
import type { Together } from "./uses/together.js";

/** The old code of a rule: as it looks, or what it says. */
export type Old = Snippet | Reading;

/** What the matched code becomes: a snippet, or segments worked out by a function. */
export type Becomes = Snippet | ((match: Match) => Snippet | readonly Segment[]);

/** What an author writes to make a rule. */
export interface RuleSpec {
  /** `language/what-it-is-about`, in lower case with hyphens. */
  readonly id: string;
  readonly kind: Kind;
  /** One line, as an order to the code: "Take the index and the item together". */
  readonly title: string;
  /** One or two sentences: what is wrong with the old code. */
  readonly why: string;
  /** A page that explains it. */
  readonly link?: string;
  /** The version of the product from which on the new code is right, and the one from which on it is wrong again. */
  readonly since?: string;
  readonly until?: string;
  /** A matter of taste: off until the config switches it on. */
  readonly taste?: boolean;
  /** The old code; several snippets or readings are alternatives, of which the first that fits counts. */
  readonly was: Old | readonly Old[];
  /** Narrows the pattern, one after the other: where one of these is false, nothing was found at all. */
  readonly where?: readonly Narrowing[];
  /** What must hold. "No" holds the change back; "unknown" lowers its trust. */
  readonly given?: readonly Condition[];
  /**
   * Sentences about cases in which new and old behave differently, in terms of values. A change with a caution is never
   * certain.
   */
  readonly cautions?: (match: Match) => readonly Evidence[];
  /** Sentences about what gets better where nobody can observe it, such as a file that is closed sooner. */
  readonly notes?: (match: Match) => readonly string[];
  /** What to do, in one sentence, where nothing is to be rewritten: such a rule only reports. */
  readonly advice?: string | ((match: Match) => string);
  /** Words of which a file must have one to be looked at, where the patterns name none that are rare. */
  readonly mentions?: readonly string[] | ((language: Language, library?: Library) => readonly string[]);
  /** For a rule that only reports: silent where one of these rules changes the same line. */
  readonly yieldsTo?: readonly string[];
  /** The new code fits the old code's pattern too, so it is not looked for in what this rule has written. */
  readonly once?: true;
  /** What the config may set. */
  readonly options?: RuleOptions;
  /** The same rule for a project with handle types of its own. */
  readonly withHandles?: (handles: readonly Handle[]) => Rule;
  /** The version of the language that the new code needs; below it the rule is silent. JavaScript counts by year. */
  readonly target?: string;
  /** For a reading an expression, which goes where the old value went. May be left out where `uses` says all there is to say. */
  readonly becomes?: Becomes;
  /**
   * What becomes of the uses of a name: each covered by a clause, or all renamed; or worked out from the match, as is what
   * becomes of several files together.
   */
  readonly uses?: EveryUse | Renaming | ((match: Match) => EveryUse | Together);
  /** What the new code takes from elsewhere, beside what stands in `becomes`. */
  readonly needs?: readonly Need[] | ((match: Match) => readonly Need[]);
  readonly trials: readonly Trial[];
}

/** A checked rule. */
export interface Rule extends RuleSpec {
  readonly alternatives: readonly Old[];
  /** The language of its readings. */
  readonly language: LanguageId | undefined;
}

/** A rule that is not well formed, with its id and what is wrong. */
export class RuleError extends Error {
  override readonly name = "RuleError";
}

const ID = /^[a-z]+\/[a-z0-9]+(-[a-z0-9]+)*$/;

/** Is this an id for a rule: a language, a slash, and words in lower case with hyphens? */
export const isRuleId = (id: string): boolean => ID.test(id);

/** Makes a rule. Throws a RuleError when the specification has a hole in it, so to speak. */
export function rule(spec: RuleSpec): Rule {
  const fail = (what: string): never => {
    throw new RuleError(`rule "${spec.id}": ${what}`);
  };
  if (!isRuleId(spec.id)) fail("the id must look like `language/what-it-is-about`");
  if (!KINDS.includes(spec.kind)) fail(`kind must be one of ${KINDS.join(", ")}`);
  const alternatives = isOld(spec.was) ? [spec.was] : spec.was;
  if (alternatives.length === 0) fail("`was` holds no pattern");
  try {
    for (const one of alternatives) if (one instanceof Snippet) checkPattern(one);
  } catch (error) {
    fail((error as Error).message);
  }
  const says = [spec.becomes ?? spec.uses, spec.advice].filter((one) => one !== undefined);
  if (says.length === 0) fail("`becomes`, `uses` or `advice` must be there");
  if (says.length > 1) fail("a rule either rewrites or gives `advice`");
  if (spec.title.trim() === "" || spec.why.trim() === "") fail("title and why must say something");
  const fault = authorFault(spec, alternatives);
  if (fault !== undefined) fail(fault);
  const language = languageOfReadings(spec);
  if (language === undefined && alternatives.some(isReading))
    fail("nothing says in which language to read: begin the id with its name");
  return { ...spec, alternatives, language };
}

function isOld(was: RuleSpec["was"]): was is Old {
  return was instanceof Snippet || isReading(was);
}

/** The language of the new code, or the one that the id begins with. */
function languageOfReadings({ id, becomes }: RuleSpec): LanguageId | undefined {
  if (becomes instanceof Snippet) return becomes.language;
  return allLanguages().find((language) => language.id === id.split("/")[0])?.id;
}

/** Is this a rule made with `rule()`, by this very library? What another copy of it made is not. */
export function isRule(value: unknown): value is Rule {
  const alternatives = (value as Partial<Rule> | undefined | null)?.alternatives;
  return Array.isArray(alternatives) && alternatives.every(isOld);
}

/** A named set of rules. */
export interface Pack {
  readonly name: string;
  readonly rules: readonly Rule[];
  /** What the functions and classes do that the pack is about. */
  readonly library?: Library | undefined;
  /** The product that its rules move from version to version. */
  readonly moves?: Moves | undefined;
}

/** A product that is moved, and how. */
export interface Moves {
  /** As its manifests call it. */
  readonly product: string;
  readonly language: LanguageId;
  /** Versions that cannot be skipped on the way. */
  readonly steps: readonly string[];
}

/** What a pack may say beside its rules. */
export type PackOptions = Pick<Pack, "library" | "moves">;

/** Makes a pack. Throws a RuleError when two rules share an id, or when something in it is not a rule. */
export function pack(name: string, rules: readonly Rule[], { library, moves }: PackOptions = {}): Pack {
  const seen = new Set<string>();
  rules.forEach((entry: unknown, i) => {
    if (!isRule(entry)) {
      throw new RuleError(`pack "${name}": entry ${i + 1} is not a rule made with rule()`);
    }
  });
  for (const { id } of rules) {
    if (seen.has(id)) throw new RuleError(`pack "${name}": two rules have the id "${id}"`);
    seen.add(id);
  }
  return { name, rules, library, moves };
}
