import { readFileSync } from "node:fs";
import { basename, dirname, extname, resolve } from "node:path";
import { parse as parseYaml } from "yaml";
import { z } from "zod";
import { goalIn, messageOf, Problem, type Goal } from "../node/index.js";
import { KINDS, TRUSTS } from "../rules/index.js";

/** A repository of a fleet. */
export interface Repository {
  /** A name of its own, which is that of its folder. */
  readonly name: string;
  /** A folder, or what git takes as an address. */
  readonly from: string;
  /** The branch to begin from; the one that the repository shows where nothing is said. */
  readonly base?: string | undefined;
}

/** What holds for all repositories of a fleet. */
export interface Policy {
  /** The config for all of them, with its packs and checks; else each has its own. An absolute path. */
  readonly config?: string | undefined;
  /** The branch that the commits are made on. */
  readonly branch: string;
  /** Changes that are at least this sure are committed. */
  readonly trust: (typeof TRUSTS)[number];
  /** Commit nothing where no check has passed. */
  readonly onlyProven: boolean;
  readonly to?: string | undefined;
  readonly rules?: readonly string[] | undefined;
  readonly kinds?: readonly (typeof KINDS)[number][] | undefined;
  /** A command that makes a fresh copy ready for the checks. */
  readonly prepare?: string | undefined;
  /** So often is a repository tried where what went wrong may go right another time. */
  readonly attempts: number;
  /** After so many minutes an attempt is given up. */
  readonly minutes: number;
}

/** Repositories, and what is to be done with each. */
export interface FleetList {
  readonly policy: Policy;
  readonly repositories: readonly Repository[];
}

const NAME = /^[\p{L}\p{N}_][\p{L}\p{N}_.-]*$/u;
/** What git allows of a branch, and no more than is needed. */
const BRANCH = /^(?!.*(\.\.|\/\/|\.lock(\/|$)))[\p{L}\p{N}_][\p{L}\p{N}_./-]*[\p{L}\p{N}_]$/u;

const branch = z.string().regex(BRANCH, "is no name of a branch");
const source = z
  .string()
  .min(1)
  .refine((from) => !from.startsWith("-"), "must not begin with a hyphen");

const schema = z.strictObject({
  config: z.string().min(1).optional(),
  branch: branch.default("uvran/newer-idioms"),
  trust: z.enum(TRUSTS).default("certain"),
  onlyProven: z.boolean().default(false),
  to: z.string().optional(),
  rules: z.array(z.string().min(1)).min(1).optional(),
  kinds: z.array(z.enum(KINDS)).min(1).optional(),
  prepare: z.string().min(1).optional(),
  attempts: z.number().int().min(1).max(9).default(3),
  minutes: z.number().positive().max(1440).default(60),
  repositories: z
    .array(
      z.union([
        source,
        z.strictObject({
          from: source,
          name: z.string().regex(NAME, "may have letters, digits, _, . and -").optional(),
          base: branch.optional(),
        }),
      ]),
    )
    .min(1),
});

/**
 * Reads a list of repositories: YAML or JSON, or lines of a `.txt` with a repository each. Folders and the config are looked for
 * from where the list is. Throws a Problem for one that cannot be read.
 */
export function readList(file: string): FleetList {
  const where = resolve(file);
  let text: string;
  try {
    text = readFileSync(where, "utf8");
  } catch (error) {
    throw new Problem(`The list ${file} cannot be read: ${messageOf(error)}`);
  }
  let raw: unknown;
  try {
    raw = extname(where) === ".txt" ? { repositories: linesOf(text) } : parseYaml(text);
  } catch (error) {
    throw new Problem(`The list ${file} is no YAML: ${messageOf(error)}`);
  }
  const parsed = schema.safeParse(Array.isArray(raw) ? { repositories: raw } : raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const place = issue!.path.length > 0 ? ` at ${issue!.path.join(".")}` : "";
    throw new Problem(
      `The list ${file} is wrong${place}: ${issue!.message}\n` +
        "Write at least: repositories: [a folder or an address of git, …]",
    );
  }
  const { repositories, config, ...policy } = parsed.data;
  if (policy.to !== undefined) goalOf(policy.to);
  const folder = dirname(where);
  return {
    policy: { ...policy, ...(config === undefined ? {} : { config: resolve(folder, config) }) },
    repositories: named(
      repositories.map((one) => (typeof one === "string" ? { from: one } : one)),
      folder,
      file,
    ),
  };
}

/** The version of a product that a policy leads to. Throws a Problem for a text that says none. */
export function goalOf(to: string): Goal {
  try {
    return goalIn(to);
  } catch (error) {
    throw new Problem(`The list says "to: ${to}": ${messageOf(error)}`);
  }
}

const linesOf = (text: string): string[] =>
  text
    .split(/\r?\n/)
    .map((line) => line.replace(/(^|\s)#.*/, "").trim())
    .filter((line) => line !== "");

/** Is it what git takes as an address, and no path? */
const isAddress = (from: string): boolean =>
  /^[a-z][a-z+]*:\/\//i.test(from) || /^[\w.-]+@[\w.-]+:/.test(from);

function named(
  entries: readonly { from: string; name?: string | undefined; base?: string | undefined }[],
  folder: string,
  file: string,
): Repository[] {
  const seen = new Set<string>();
  return entries.map(({ from, name: own, base }) => {
    const last = basename(from.replace(/[/\\]+$/, ""))
      .split(":")
      .at(-1)!;
    const name = own ?? last.replace(/\.git$/, "");
    if (!NAME.test(name))
      throw new Problem(`The list ${file}: "${from}" makes no name for a folder. Give it one with: name`);
    // Some file systems do not tell cases apart.
    const key = name.toLowerCase();
    if (seen.has(key))
      throw new Problem(
        `The list ${file} has two repositories that would be called "${name}". Give one another name with: name`,
      );
    seen.add(key);
    return { name, from: isAddress(from) ? from : resolve(folder, from), base };
  });
}
