import { readFileSync } from "node:fs";
import { basename, join } from "node:path";
import fc from "fast-check";
import { hashText } from "../../engine/index.js";
import { findSources, isSource, type ScratchConfig } from "../../node/index.js";
import { byPath, type PlanChange } from "../../plan/index.js";
import { languageOfFile } from "../../syntax/index.js";
import type { Candidates } from "../candidates.js";
import type { Copy, Replacements } from "../copy.js";
import { Scratch } from "../scratch.js";
import { callablesIn, canBeTried, type Callable, type Untried } from "./callables.js";
import { callSites } from "./call-sites.js";
import { Caller, type Answer } from "./caller.js";
import { firstInputs, inputsFor } from "./inputs.js";
import { inJavaScript, inPython, type Value } from "./value.js";

/** A changed function that was called with many inputs, old and new. */
export interface Tried {
  readonly path: string;
  readonly name: string;
  readonly line: number;
  readonly changes: readonly PlanChange[];
  /** With how many inputs, and how many of them it gave a result for. */
  readonly inputs: number;
  readonly results: number;
  readonly difference?: Difference;
}

/** An input for which old and new code do not do the same; the smallest that was found. */
export interface Difference {
  readonly args: readonly Value[];
  /** The call, as a program that can be pasted. */
  readonly program: string;
  readonly old: Answer;
  readonly now: Answer;
  /** What of it is different: the result, what is thrown, the arguments afterwards, what it printed. */
  readonly what: string;
  /** The changes that make this difference, each by itself; all of the function where none does alone. */
  readonly changes: readonly PlanChange[];
}

/** What calling the changed functions came to. */
export interface Examples {
  readonly tried: readonly Tried[];
  readonly untried: readonly Untried[];
  /** Changes in files of other languages, by language. */
  readonly others: ReadonlyMap<string, number>;
}

export interface ExampleTask {
  readonly root: string;
  readonly scratch?: ScratchConfig;
  readonly leaveOut?: readonly string[];
  readonly candidates: Candidates;
  /** How many inputs for each function; 500 where nothing is said. */
  readonly tries?: number;
  readonly signal?: AbortSignal;
  readonly progress?: (name: string, done: number, total: number) => void;
}

const DEFAULT_TRIES = 500;
/** Of one function. */
const MOST_MILLISECONDS = 10_000;

/**
 * Calls changed functions of JavaScript, TypeScript and Python that can be called on their own, old and new, with inputs made
 * from their types, from what they do with their parameters, from what is written in them, and from calls elsewhere. Each
 * side runs in a process of its own that cannot write files or reach the network.
 */
export async function compareByExample(task: ExampleTask): Promise<Examples> {
  const scratch = new Scratch(task.root, task.scratch ?? {});
  try {
    return await new ByExample(task, scratch).run();
  } finally {
    await scratch.close();
  }
}

class ByExample {
  readonly #task: ExampleTask;
  readonly #old: Copy;
  readonly #now: Copy;
  readonly #sources: readonly string[];
  readonly #tried: Tried[] = [];
  readonly #untried: Untried[] = [];
  readonly #texts = new Map<string, string | undefined>();
  #typed: import("./typed-inputs.js").TypedInputs | undefined;

  constructor(task: ExampleTask, scratch: Scratch) {
    this.#task = task;
    this.#old = scratch.copy();
    this.#now = scratch.copy();
    this.#sources = findSources(task.root, [], task.root, task.leaveOut ?? []).paths;
  }

  async run(): Promise<Examples> {
    const { candidates, signal, progress } = this.#task;
    const others = new Map<string, number>();
    const files = [...byPath(candidates.changes)];
    for (const [i, [path, changes]] of files.entries()) {
      if (signal?.aborted) break;
      progress?.(path, i, files.length);
      const language = languageOfFile(path);
      if (!canBeTried(path)) {
        const title = language?.title ?? "other files";
        others.set(title, (others.get(title) ?? 0) + changes.length);
        continue;
      }
      const text = candidates.textOf(path);
      if (text === undefined) continue;
      const { callables, untried } = await callablesIn(path, text, changes);
      this.#untried.push(...untried);
      if (callables.length > 0) await this.#file(path, callables);
    }
    return { tried: inOrder(this.#tried), untried: inOrder(this.#untried), others };
  }

  async #file(path: string, callables: readonly Callable[]): Promise<void> {
    const texts = await this.#task.candidates.texts(this.#task.candidates.changes);
    this.#old.put(exposing(new Map([[path, readFileSync(join(this.#task.root, path))]]), callables));
    this.#now.put(exposing(texts, callables));
    const old = new Caller(this.#old.folder, path, this.#old.mark, callables[0]!.isPython);
    const now = new Caller(this.#now.folder, path, this.#now.mark, callables[0]!.isPython);
    try {
      const [failed, failedNow] = [await old.load(), await now.load()];
      if (failed !== undefined) {
        const why = `its module cannot be loaded: ${failed.split("\n")[0]!.replaceAll(`${this.#old.folder}/`, "")}`;
        this.#untried.push(...callables.map(({ name, line }) => ({ path, name, line, why })));
        return;
      }
      for (const callable of callables) {
        if (this.#task.signal?.aborted) return;
        if (failedNow !== undefined) this.#tried.push(loadDifference(callable, failedNow));
        else await this.#function(callable, old, now);
      }
    } finally {
      old.end();
      now.end();
    }
  }

  async #function(callable: Callable, old: Caller, now: Caller): Promise<void> {
    const { path, name, line, changes, parameters } = callable;
    const notTried = (why: string): void => void this.#untried.push({ path, name, line, why });
    const typed = await this.#types(callable);
    if (typeof typed === "string") return notTried(typed);
    const known = spokenName(callable);
    const count: Counter = { inputs: 0, results: 0, isFickle: false };
    const attempt = async (args: readonly Value[]): Promise<boolean> => {
      const [a, b] = await Promise.all([old.call(known, args), now.call(known, args)]);
      count.inputs++;
      if (!a.threw) count.results++;
      if (a.missing === true) count.missing = a.result;
      if (whatDiffers(a, b) === undefined) return true;
      // What does not do the same twice says nothing.
      const again = await old.call(known, args);
      if (whatDiffers(a, again) !== undefined) count.isFickle = true;
      return whatDiffers(a, again) !== undefined;
    };
    const sites = (await callSites(name, this.#sources, (file) => this.#text(file))).filter(
      (args) => typed.size === 0 || args.length <= parameters.length,
    );
    const examples = [...sites, ...firstInputs(callable, typed)].map((args): [Value[]] => [args]);
    const details = await fc.check(fc.asyncProperty(inputsFor(callable, typed), attempt), {
      numRuns: this.#task.tries ?? DEFAULT_TRIES,
      seed: parseInt(hashText(`${path} ${name}`).slice(0, 7), 16),
      examples,
      interruptAfterTimeLimit: MOST_MILLISECONDS,
      markInterruptAsFailure: false,
    });
    if (count.missing !== undefined) return notTried(count.missing);
    if (count.isFickle && !details.failed) return notTried("it does not do the same twice");
    const found =
      details.failed && details.counterexample
        ? await this.#difference(callable, details.counterexample[0], old, now)
        : undefined;
    if (details.failed && found === undefined)
      return notTried("it did something else once, and only after other calls");
    if (count.results === 0) return notTried("no call with what was made for it came to a result");
    const { inputs, results } = count;
    this.#tried.push({ path, name, line, changes, inputs, results, ...(found ? { difference: found } : {}) });
  }

  /** A difference in fresh processes, and the changes it is due to; undefined where it only comes after other calls. */
  async #difference(
    callable: Callable,
    args: readonly Value[],
    old: Caller,
    now: Caller,
  ): Promise<Difference | undefined> {
    const { changes } = callable;
    const known = spokenName(callable);
    await old.load();
    await now.load();
    const [a, b] = [await old.call(known, args), await now.call(known, args)];
    const what = whatDiffers(a, b);
    if (what === undefined) return undefined;
    const alone: PlanChange[] = [];
    if (changes.length > 1) {
      const { candidates } = this.#task;
      const all = await candidates.texts(candidates.changes);
      for (const change of changes) {
        this.#now.put(exposing(await candidates.texts([change]), [callable]));
        if ((await now.load()) === undefined && whatDiffers(a, await now.call(known, args)) !== undefined)
          alone.push(change);
      }
      this.#now.put(exposing(all, [callable]));
      await now.load();
    }
    return {
      args,
      program: programOf(callable, args),
      old: a,
      now: b,
      what,
      changes: alone.length > 0 ? alone : changes,
    };
  }

  async #types({
    path,
    name,
    isPython,
  }: Callable): Promise<ReadonlyMap<string, fc.Arbitrary<Value>> | string> {
    if (isPython || languageOfFile(path)?.id === "javascript") return new Map();
    this.#typed ??= new (await import("./typed-inputs.js")).TypedInputs(this.#task.root);
    return this.#typed.of(path, name) ?? new Map();
  }

  #text(path: string): string | undefined {
    if (!this.#texts.has(path)) {
      const isReadable = canBeTried(path) && isSource(this.#task.root, path, this.#task.leaveOut ?? []);
      this.#texts.set(path, isReadable ? readFileSync(join(this.#task.root, path), "utf8") : undefined);
    }
    return this.#texts.get(path);
  }
}

function inOrder<T extends { readonly path: string; readonly line: number }>(list: readonly T[]): T[] {
  return [...list].sort((a, b) => (a.path === b.path ? a.line - b.line : a.path < b.path ? -1 : 1));
}

interface Counter {
  inputs: number;
  results: number;
  isFickle: boolean;
  missing?: string;
}

/** Texts in which functions of a module in JavaScript are known outside, whether it exports them or not. */
function exposing(texts: Replacements, callables: readonly Callable[]): Replacements {
  const own = callables.filter(({ isPython, name }) => !isPython && !name.includes("exports"));
  const [first] = own;
  const text = first && texts.get(first.path);
  if (!first || text === undefined) return texts;
  const line = ({ name, isModule }: Callable): string =>
    isModule
      ? `export { ${name.split(".")[0]} as ${exposed(name)} };`
      : `module.exports[${JSON.stringify(exposed(name))}] = ${name.split(".")[0]};`;
  const added = Buffer.from(`\n;${[...new Set(own.map(line))].join("\n")}\n`);
  return new Map([...texts, [first.path, Buffer.concat([Buffer.from(text), added])]]);
}

/** The name under which something at the top of a module is known outside. */
function exposed(name: string): string {
  return `uvran_${name.split(".")[0]}`;
}

/** By what name a function is called in its process. */
function spokenName({ name, isPython }: Callable): string {
  if (isPython) return name;
  if (!name.includes("exports")) return [exposed(name), ...name.split(".").slice(1)].join(".");
  return /exports\.(.*)/.exec(name)?.[1] ?? "default";
}

function whatDiffers(old: Answer, now: Answer): string | undefined {
  if (old.threw !== now.threw || old.result !== now.result)
    return old.threw || now.threw ? "what is thrown" : "the result";
  if (old.after !== now.after) return "its arguments afterwards";
  return old.printed === now.printed ? undefined : "what it prints";
}

function loadDifference({ path, name, line, changes }: Callable, why: string): Tried {
  const answer = (result: string, threw: boolean): Answer => ({ result, threw, after: "", printed: "" });
  const difference = {
    args: [],
    program: "",
    old: answer("loads", false),
    now: answer(why.split("\n")[0]!, true),
    what: "its module does not load any more",
    changes,
  };
  return { path, name, line, changes, inputs: 0, results: 0, difference };
}

/** A call as a program: it is pasted behind the file's own code where the function is not exported. */
function programOf({ path, name, isPython, isModule, isExported }: Callable, args: readonly Value[]): string {
  const file = basename(path);
  if (isPython) {
    const call = `${name}(${args.map(inPython).join(", ")})`;
    const needs = ["types", "datetime"].filter((module) => call.includes(`${module}.`));
    return [
      ...needs.map((one) => `import ${one}`),
      `from ${file.replace(/\.py$/, "")} import ${name}`,
      `print(repr(${call}))`,
    ].join("\n");
  }
  const short = name.includes("exports") ? (/exports\.(.*)/.exec(name)?.[1] ?? "called") : name;
  const [first] = short.split(".");
  const call = `console.log(${short}(${args.map(inJavaScript).join(", ")}));`;
  if (!isExported) return `${call} // behind the code of ${file}`;
  const from = JSON.stringify(`./${file}`);
  const isWhole = name.includes("exports") && !name.includes("exports.");
  const load = isModule
    ? `import { ${first} } from ${from};`
    : `const ${isWhole ? first : `{ ${first} }`} = require(${from});`;
  return `${load}\n${call}`;
}
