import { createHash, type Hash } from "node:crypto";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { filesBehind, installed, SHIPPED, shownVersion, type Project } from "../node/index.js";

/** Of a project, all that its results rest on beside its files. */
type Basis = Pick<Project, "rules" | "targets" | "library" | "fileTime" | "goal" | "configFile" | "journeys">;

/**
 * A name for all that results rest on beside the files of a project: this program, the config with what it is made from, the rules
 * with their settings, what is known of libraries. Results that were found under another name say nothing.
 */
export function signatureOf({
  rules,
  configFile,
  goal,
  journeys,
  targets,
  library,
  fileTime,
}: Basis): string {
  const hash = createHash("sha256");
  const own = new Set<unknown>(SHIPPED.flatMap((pack) => pack.rules));
  const add = (...values: unknown[]): void => void new Fingerprint(hash).add(values);
  add(shownVersion(), process.version, ...programFiles());
  for (const file of configFile === undefined ? [] : filesBehind(configFile)) add(file, contentOf(file));
  for (const rule of rules) add(own.has(rule) ? rule.id : rule);
  const ways = journeys.map(({ product, from, to, steps }) => [product, from, to, steps]);
  add(targets, library, fileTime, goal, ways);
  return hash.digest("hex").slice(0, 32);
}

/** The files of this program, with what changes when one of them does. */
function programFiles(): string[] {
  const folder = installed("dist");
  const files = readdirSync(folder, { recursive: true, encoding: "utf8" }).sort();
  return files.flatMap((name) => {
    const { size, mtimeMs } = statSync(join(folder, name));
    return name.endsWith(".js") ? [`${name} ${size} ${mtimeMs}`] : [];
  });
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
