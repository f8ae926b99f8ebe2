import { createHash, type Hash } from "node:crypto";
import { readFileSync, statSync } from "node:fs";
import { createRequire } from "node:module";
import { installed, shownVersion, wasmPath, type Project } from "../node/index.js";
import type { Rule } from "../rules/index.js";
import { allLanguages, RUNTIME_FILE } from "../syntax/index.js";

/** Of a project, all that its results rest on beside its files. */
type Basis = Pick<
  Project,
  | "rules"
  | "shippedRules"
  | "languages"
  | "targets"
  | "library"
  | "fileTime"
  | "goal"
  | "configFiles"
  | "journeys"
>;

/**
 * A name for all that results rest on beside the files of a project: this program, the config with what it is made from, the rules
 * with their settings, what is known of libraries. Results that were found under another name say nothing.
 */
export function signatureOf({
  rules,
  shippedRules,
  languages,
  configFiles,
  goal,
  journeys,
  targets,
  library,
  fileTime,
}: Basis): string {
  const hash = createHash("sha256");
  const add = (...values: unknown[]): void => void new Fingerprint(hash).add(values);
  add(shownVersion(), process.version, ...programFiles());
  for (const file of configFiles) add(file, contentOf(file));
  // Rules for other languages find nothing, whether they are loaded or not.
  const isIdle = ({ language }: Rule): boolean =>
    language !== undefined && languages?.has(language) === false;
  for (const rule of rules.filter((one) => !isIdle(one))) add(shippedRules.has(rule) ? rule.id : rule);
  const ways = journeys.map(({ product, from, to, steps }) => [product, from, to, steps]);
  add(targets, library, fileTime, goal, ways);
  return hash.digest("hex").slice(0, 32);
}

/** What was built of this program, summed up by the last step of a build, its grammars, and the compiler that comes with it. */
function programFiles(): string[] {
  const grammars = [RUNTIME_FILE, ...allLanguages().map(({ grammar }) => `${grammar}.wasm`)].map(wasmPath);
  const compiler = createRequire(import.meta.url).resolve("typescript/package.json");
  const others = [...grammars, compiler].sort().map((file) => {
    const { size, mtimeMs } = statSync(file);
    return `${file} ${size} ${mtimeMs}`;
  });
  return [readFileSync(installed("dist/built.txt"), "utf8"), ...others];
}

function contentOf(file: string): string {
  try {
    return readFileSync(file, "base64");
  } catch {
    return "";
  }
}

/** Takes in values of any kind, rules with their patterns and functions too; what is met again counts by when it was met first. */
class Fingerprint {
  readonly #seen = new Map<object, number>();
  readonly #hash: Hash;

  constructor(hash: Hash) {
    this.#hash = hash;
  }

  add(value: unknown): void {
    const say = (text: string): void => void this.#hash.update(`${text.length} ${text}`);
    if (value === null || (typeof value !== "object" && typeof value !== "function"))
      return say(`${typeof value} ${String(value)}`);
    const seen = this.#seen.get(value);
    if (seen !== undefined) return say(`seen ${seen}`);
    this.#seen.set(value, this.#seen.size);
    if (typeof value === "function" || value instanceof RegExp) say(String(value));
    if (value instanceof Map || value instanceof Set) for (const entry of value) this.add(entry);
    for (const [key, inner] of Object.entries(value)) {
      say(key);
      this.add(inner);
    }
  }
}
