import { adviceGiven, reasonHeld } from "../engine/index.js";
import { settingsOf, type Kind, type Rule, type Trial } from "../rules/index.js";

/** Code of a trial, and what the rule must be told to do with it what the trial says. */
export interface Shown extends Pick<Trial, "language" | "beside" | "trust" | "target" | "options"> {
  readonly code: string;
}

/** What a page about a rule says, whatever its form. */
export interface RuleFacts {
  readonly id: string;
  readonly kind: Kind;
  readonly title: string;
  readonly why: string;
  /** A matter of taste, off until it is switched on. */
  readonly isOff: boolean;
  readonly onlyReports: boolean;
  /** The language and the version from which on the new code can stand. */
  readonly needs?: string;
  /** Is it driven by the handles of the config? */
  readonly knowsHandles: boolean;
  readonly settings: readonly { readonly name: string; readonly preset: string; readonly says: string }[];
  /** What must be known for a change to be certain. */
  readonly musts: readonly string[];
  readonly example?: Shown & { readonly now: string };
  readonly reported?: Shown & { readonly says: string };
  readonly unsure: readonly Shown[];
  readonly held: readonly (Shown & { readonly because: string })[];
}

const MOST_UNSURE = 2;
const MOST_HELD = 4;

/** Versions of a language are said by this name. */
const LANGUAGES: Readonly<Record<string, string>> = {
  cpp: "C++",
  csharp: "C#",
  java: "Java",
  javascript: "ECMAScript",
  php: "PHP",
  powershell: "PowerShell",
  python: "Python",
  ruby: "Ruby",
};

/** What a rule says of itself, with examples from its trials: what, why, before and after, when it holds back. */
export async function factsOf(rule: Rule): Promise<RuleFacts> {
  const { id, kind, title, why, taste = false, target, given = [], advice, trials } = rule;
  const examples = trials.filter((trial) => trial.was !== trial.now);
  const sure = examples.find(({ trust }) => trust === "certain") ?? examples[0];
  const reported = trials.find(({ says }) => says !== undefined);
  const held = trials.filter(({ because }) => because !== undefined).slice(0, MOST_HELD);
  return {
    id,
    kind,
    title,
    why,
    isOff: taste,
    onlyReports: advice !== undefined,
    ...(target === undefined ? {} : { needs: `${LANGUAGES[id.split("/")[0]!] ?? ""} ${target}` }),
    knowsHandles: rule.withHandles !== undefined,
    settings: rule.options ? settingsOf(rule.options) : [],
    musts: given.map(({ must }) => must),
    ...(sure ? { example: { ...shown(sure), now: sure.now } } : {}),
    ...(reported
      ? { reported: { ...shown(reported), says: (await adviceGiven(rule, reported)) ?? reported.says! } }
      : {}),
    unsure: examples
      .filter(({ trust }) => trust !== "certain")
      .slice(0, MOST_UNSURE)
      .map(shown),
    held: await Promise.all(
      held.map(async (trial) => ({
        ...shown(trial),
        because: (await reasonHeld(rule, trial)) ?? trial.because!,
      })),
    ),
  };
}

function shown({ language, was, beside, trust, target, options }: Trial): Shown {
  return {
    language,
    code: was,
    ...(beside === undefined ? {} : { beside }),
    ...(trust === undefined ? {} : { trust }),
    ...(target === undefined ? {} : { target }),
    ...(options === undefined ? {} : { options }),
  };
}
