import { existsSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { z } from "zod";
import { EFFECTS, TRAITS } from "../analysis/index.js";
import type { Library, Pack, Rule } from "../core.js";
import type { EffortMinutes } from "../report/index.js";
import { isRule, LANGUAGES_WITH_HANDLES, SCOPINGS, type Handle } from "../rules/index.js";
import { allLanguages, languageOf, type LanguageId } from "../syntax/index.js";
import { languageOnDisk } from "./file-language.js";
import { packModules, shippedPacks } from "../packs/by-language.js";
import { checksSchema, scratchSchema, type Check, type ScratchConfig } from "./check.js";
import { filesBehind } from "./config-files.js";
import { loadedInTime } from "./config-loading.js";
import type { Formatter } from "./formatters.js";
import { findSources, type Sources } from "./files.js";
import { checkHandles } from "./handles.js";
import { messageOf, Problem } from "./problem.js";
import { isFor, journeys, ruleOfTable, type Goal, type Journey } from "./moves.js";
import { loadTable, shippedTables } from "./tables.js";
import type { Targets } from "./targets.js";

/** What `uvran.config.ts` exports by default. */
export interface UvranConfig {
  /** Sets of rules; without it, all that ship with Uvran. */
  readonly packs?: readonly Pack[];
  /** Files with tables of what products have changed, as JSON or YAML; each is a pack. */
  readonly tables?: readonly string[];
  /** The versions of such products that the code is written for, where the manifests do not say it. */
  readonly products?: Readonly<Record<string, string>>;
  /** Minutes that a place takes, for the estimate of a survey. */
  readonly effort?: Partial<EffortMinutes>;
  /** Switches single rules on or off by their ids; settings of a rule switch it on. */
  readonly rules?: Readonly<Record<string, boolean | Readonly<Record<string, unknown>>>>;
  /** The versions that the code must run on, where the manifests do not say or say too much. */
  readonly targets?: Targets;
  /** The project's own resources, which the rules for resources then know too. */
  readonly handles?: readonly Handle[];
  /** What the functions and classes do that the project's code uses, as far as no pack says it. */
  readonly library?: Library;
  /** Files to leave out, written like lines of a .gitignore. */
  readonly leaveOut?: readonly string[];
  /** After how many seconds a file is given up; 60 where nothing is said. */
  readonly secondsPerFile?: number;
  /** What `uvran prove` runs. */
  readonly checks?: readonly Check[];
  /** What goes into the copies of the project that the checks run in. */
  readonly scratch?: ScratchConfig;
  /** What lays out the files that `uvran apply` has written. */
  readonly formatters?: readonly Formatter[];
}

/** Gives a config its type. */
export function defineConfig(config: UvranConfig): UvranConfig {
  return config;
}

const NAMES = ["ts", "mts", "js", "mjs", "json"].map((ending) => `uvran.config.${ending}`);

const handleCode = z.string().regex(/\bhandle\b/, "must have `handle` in it, which stands for the variable");

/** How the versions of JavaScript and TypeScript are counted. */
const YEAR = /^20\d\d$/;

const schema = z.strictObject({
  packs: z
    .array(
      z.custom<Pack>(
        (value) => isPack(value),
        "must be a pack made with pack(), of rules made with rule() of this Uvran",
      ),
    )
    .optional(),
  effort: z
    .strictObject({
      automatic: z.number().nonnegative().optional(),
      review: z.number().nonnegative().optional(),
      hand: z.number().nonnegative().optional(),
    })
    .optional(),
  tables: z.array(z.string().min(1)).optional(),
  products: z
    .record(z.string(), z.string().regex(/^\d+(\.\d+)*$/, "must be a version such as 2.1"))
    .optional(),
  rules: z
    .record(
      z.string(),
      z.union(
        [z.boolean(), z.record(z.string(), z.unknown())],
        "must be a boolean, or the settings of the rule",
      ),
    )
    .optional(),
  targets: z
    .partialRecord(z.enum(allLanguages().map(({ id }) => id)), z.string().regex(/^\d+(\.\d+)*$/))
    .superRefine((targets, { addIssue }) => {
      for (const [id, version] of Object.entries(targets)) {
        const { title, assumedVersion } = languageOf(id as LanguageId);
        if (!YEAR.test(assumedVersion) || YEAR.test(version)) continue;
        const message = `${title} counts by years: write one such as "${assumedVersion}", not "${version}"`;
        addIssue({ code: "custom", path: [id], message });
      }
    })
    .optional(),
  handles: z
    .array(
      z.strictObject({
        language: z.enum(LANGUAGES_WITH_HANDLES),
        acquire: z
          .string()
          .regex(/\((…|…, &handle|&handle)\)$/, "must end in `(…)`, which stands for the arguments"),
        from: z.string().min(1).optional(),
        release: z.string().regex(/\bhandle\b/, "must have `handle` in it, which stands for the variable"),
        scoped: z.enum(SCOPINGS).optional(),
        unseen: z.boolean().optional(),
        wrapper: z
          .strictObject({
            type: z.string().min(1),
            get: handleCode,
            fill: handleCode.optional(),
            read: handleCode.optional(),
            take: handleCode.optional(),
            reset: handleCode.optional(),
            include: z
              .string()
              .regex(/^(<.+>|".+")$/, "must have the quotes or brackets of an #include")
              .optional(),
          })
          .optional(),
      }),
    )
    .optional(),
  library: z
    .strictObject({
      calls: z
        .array(
          z.strictObject({
            language: z.enum(LANGUAGES_WITH_HANDLES),
            in: z.string().min(1).optional(),
            calls: z.array(z.string().min(1)).min(1),
            effect: z.enum(EFFECTS),
            varies: z.union([z.boolean(), z.literal("without arguments")]).optional(),
            asksArguments: z.boolean().optional(),
            keeps: z.boolean().optional(),
            acquires: z.boolean().optional(),
            releases: z.boolean().optional(),
            runs: z.boolean().optional(),
            neverThrows: z.boolean().optional(),
            gives: z.string().min(1).optional(),
            orMissing: z.boolean().optional(),
            orFalse: z.boolean().optional(),
          }),
        )
        .optional(),
      classes: z
        .array(
          z.strictObject({
            language: z.enum(LANGUAGES_WITH_HANDLES),
            in: z.string().min(1).optional(),
            classes: z.array(z.string().min(1)).min(1),
            are: z.array(z.enum(TRAITS)).min(1),
            releaseThrows: z.string().min(1).optional(),
          }),
        )
        .optional(),
      values: z
        .array(
          z.strictObject({
            language: z.enum(LANGUAGES_WITH_HANDLES),
            in: z.string().min(1),
            values: z.array(z.string().min(1)).min(1),
            type: z.string().min(1),
            typeIn: z.string().min(1).optional(),
          }),
        )
        .optional(),
    })
    .optional(),
  leaveOut: z.array(z.string()).optional(),
  secondsPerFile: z.number().positive().optional(),
  checks: checksSchema.optional(),
  scratch: scratchSchema.optional(),
  formatters: z
    .array(
      z.strictObject({
        files: z.array(z.string().min(1)).min(1),
        run: z
          .string()
          .regex(/\{files?\}/, "must have `{files}` or `{file}` in it, which stands for what was written"),
      }),
    )
    .optional(),
});

function isPack(value: unknown): boolean {
  if (typeof value !== "object" || value === null || !("rules" in value)) return false;
  return Array.isArray(value.rules) && value.rules.every(isRule);
}

/** A project: where it is, and what its config says. */
export interface Project {
  readonly root: string;
  readonly configFile?: string;
  /** The config, all that it is made from, and the tables that it names; absolute paths. */
  readonly configFiles: readonly string[];
  /** All known rules, active or not. */
  readonly allRules: readonly Rule[];
  /** The rules that ship with Uvran, as far as they are here as they are there, without settings or handles. */
  readonly shippedRules: ReadonlySet<Rule>;
  /** The languages whose rules may find something in the files that there were; undefined for all. */
  readonly languages: ReadonlySet<LanguageId> | undefined;
  /** The rules that are on. */
  readonly rules: readonly Rule[];
  /** The packs that are tables of what products have changed. */
  readonly tables: readonly Pack[];
  /** The ways of the products for which there are tables. */
  readonly journeys: readonly Journey[];
  readonly effort: Partial<EffortMinutes>;
  readonly leaveOut: readonly string[];
  readonly targets: Targets;
  readonly checks: readonly Check[];
  readonly scratch: ScratchConfig;
  readonly formatters: readonly Formatter[];
  /** What is known of libraries beyond what ships: by the packs, and by the config. */
  readonly library: Library | undefined;
  /** The time in milliseconds after which a file is given up, where the config says it. */
  readonly fileTime: number | undefined;
  /** The version of a product that the code is to reach, where one is asked for. */
  readonly goal?: Goal | undefined;
  /** What a search for sources came upon when the project was loaded. */
  readonly sources?: Sources;
}

/** How a project is to be loaded. */
export interface Loading {
  /** The config instead of the nearest one. */
  readonly config?: string | undefined;
  /** The root instead of the folder of the config. */
  readonly root?: string | undefined;
  readonly goal?: Goal | undefined;
  /** The project's files, where they have been looked for already. */
  readonly sources?: Sources | undefined;
  /**
   * The files and folders that will be asked about, none for all that there are: rules that ship for other languages than
   * theirs are left out, so that less has to be loaded. Where nothing is given, all are there.
   */
  readonly onlyFor?: readonly string[] | undefined;
}

/**
 * Finds the project around `from`: the nearest folder upwards with a config, else `from` itself. Throws a Problem for a config
 * that cannot be loaded.
 */
export async function loadProject(
  from: string,
  { config: configOption, root: rootOption, goal, sources: known, onlyFor }: Loading = {},
): Promise<Project> {
  const configFile = configOption === undefined ? configAround(from) : resolve(from, configOption);
  const stat = configFile === undefined ? undefined : statSync(configFile, { throwIfNoEntry: false });
  if (configFile !== undefined && !stat) {
    throw new Problem(`There is no config at ${configFile}. Check the path given with --config.`);
  }
  if (configFile !== undefined && stat?.isFile() !== true)
    throw new Problem(`${configFile} is no file, so it cannot be the config.`);
  const base = projectFolder(from, configOption);
  const root = rootOption === undefined ? base : resolve(from, rootOption);
  const config = configFile === undefined ? {} : await loadConfig(configFile);
  const handles = config.handles ?? [];
  if (configFile !== undefined) await checkHandles(handles, configFile);
  const tables = await Promise.all((config.tables ?? []).map((path) => loadTable(base, path)));
  const sources = known ?? findSources(root, [], root, config.leaveOut ?? []);
  const folders = [...new Set(sources.paths.map((path) => dirname(path)))];
  const moved = { root, folders, products: config.products ?? {} };
  const switches = config.rules ?? {};
  // To know that a rule does not exist, all must be known.
  const isNarrow =
    onlyFor !== undefined && Object.keys(switches).length === 0 && areAmong(sources, onlyFor, { root, from });
  const languages = languagesIn(root, sources);
  const shipped = config.packs ? [] : await shippedPacks(isNarrow ? languages : undefined);
  const moves = config.packs ? [] : await shippedTables(moved, goal);
  const packs = [...(config.packs ?? shipped), ...tables, ...moves];
  const ways = journeys(moved, packs, goal);
  const allRules = packs
    .flatMap((pack) => pack.rules)
    .map((rule) => (handles.length > 0 ? (rule.withHandles?.(handles) ?? rule) : rule))
    .map((rule) => withSettings(rule, switches[rule.id], configFile));
  for (const id of Object.keys(switches)) {
    if (!allRules.some((rule) => rule.id === id)) {
      throw new Problem(`${configFile}: there is no rule "${id}". List the rules with: uvran rules`);
    }
  }
  return {
    root,
    goal,
    sources,
    ...(configFile === undefined ? {} : { configFile }),
    configFiles: [
      ...(configFile === undefined ? [] : filesBehind(configFile)),
      ...(config.tables ?? []).map((path) => resolve(base, path)),
    ],
    allRules,
    languages,
    shippedRules: new Set(shipped.flatMap(({ rules }) => rules)),
    rules: rulesDue(
      allRules.filter((rule) => switches[rule.id] ?? !rule.taste),
      packs,
      ways,
      goal,
    ),
    tables: packs.filter(({ moves }) => moves !== undefined),
    journeys: ways,
    effort: config.effort ?? {},
    leaveOut: config.leaveOut ?? [],
    targets: config.targets ?? {},
    checks: config.checks ?? [],
    scratch: config.scratch ?? {},
    formatters: config.formatters ?? [],
    library: merged([config.library, ...packs.map(({ library }) => library)]),
    fileTime: config.secondsPerFile === undefined ? undefined : config.secondsPerFile * 1000,
  };
}

/** Are these paths files that were found, or folders in which some were? What is named may be a link, or ignored otherwise. */
function areAmong(
  { paths }: Sources,
  named: readonly string[],
  { root, from }: { readonly root: string; readonly from: string },
): boolean {
  return named.every((path) => {
    const at = relative(root, resolve(from, path)).replaceAll("\\", "/");
    return at === "" || paths.some((found) => found === at || found.startsWith(`${at}/`));
  });
}

/** The languages whose rules may find something in these files; undefined for all, as documentation may be about any. */
function languagesIn(root: string, { paths }: Sources): ReadonlySet<LanguageId> | undefined {
  const languages = new Set(paths.map((path) => languageOnDisk(join(root, path))));
  return languages.has(undefined) ? undefined : new Set([...languages].flatMap((one) => one!.speaks));
}

/** A rule as it works in a project: one of a table only where the version of its product is that for which it is. */
export function ruleInProject(
  { tables, journeys: ways }: Pick<Project, "tables" | "journeys">,
  rule: Rule,
  goal: Goal | undefined,
): Rule {
  const table = tables.find(({ rules }) => rules.some(({ id }) => id === rule.id));
  const way = table && ways.find(({ product }) => product === table.moves?.product);
  return way ? ruleOfTable(rule, way, goal) : rule;
}

/** The rules that are on for the versions that products have, or are to get; with a goal, those that lead to it alone. */
function rulesDue(
  rules: readonly Rule[],
  packs: readonly Pack[],
  ways: readonly Journey[],
  goal: Goal | undefined,
): Rule[] {
  return rules.flatMap((rule) => {
    const pack = packs.find(({ moves, rules: own }) => moves && own.some(({ id }) => id === rule.id));
    if (!pack) return goal === undefined ? [rule] : [];
    const way = ways.find(({ product }) => product === pack.moves?.product);
    if (!way) return [];
    const versions = [way.to, ...(goal ? [] : [way.from, ...way.elsewhere.map(({ version }) => version)])];
    const isDue = versions.some((version) => version === undefined || isFor(rule, version));
    return isDue ? [ruleOfTable(rule, way, goal)] : [];
  });
}

/** The rule for what the config sets of it. */
function withSettings(
  rule: Rule,
  settings: boolean | Readonly<Record<string, unknown>> | undefined,
  configFile: string | undefined,
): Rule {
  if (typeof settings !== "object") return rule;
  const where = `${configFile}: rules.${rule.id}`;
  if (!rule.options) throw new Problem(`${where}: the rule has nothing to set. Write true or false.`);
  try {
    return rule.options.with(settings);
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    const issue = error.issues[0];
    throw new Problem(`${[where, ...(issue?.path ?? [])].join(".")}: ${issue?.message}`);
  }
}

/** Several sources of knowledge as one, those first that come first; undefined where there are none. */
function merged(all: readonly (Library | undefined)[]): Library | undefined {
  const some = all.filter((one) => one !== undefined);
  if (some.length === 0) return undefined;
  return {
    calls: some.flatMap(({ calls = [] }) => calls),
    classes: some.flatMap(({ classes = [] }) => classes),
    values: some.flatMap(({ values = [] }) => values),
  };
}

/** The root of the project around a folder: where its config is, else the folder itself. */
export function projectFolder(from: string, configOption?: string): string {
  const configFile = configOption === undefined ? configAround(from) : resolve(from, configOption);
  return configFile === undefined ? resolve(from) : dirname(configFile);
}

/** The nearest config from a folder upwards. */
export function configAround(from: string): string | undefined {
  for (let folder = resolve(from); ; folder = dirname(folder)) {
    for (const name of NAMES) {
      const path = join(folder, name);
      if (existsSync(path) && statSync(path).isFile()) return path;
    }
    if (dirname(folder) === folder) return undefined;
  }
}

async function loadConfig(file: string): Promise<UvranConfig> {
  const { createJiti } = await import("jiti");
  const uvran = await import("../index.js");
  const core = await import("../core.js");
  const namesPacks = filesBehind(file).some((one) => readFileSync(one, "utf8").includes("uvran/packs"));
  const jiti = createJiti(import.meta.url, {
    fsCache: false,
    moduleCache: false,
    virtualModules: {
      uvran,
      "uvran/core": core,
      "uvran/node": { defineConfig },
      ...(namesPacks ? await packModules() : {}),
    },
  });
  let loaded: unknown;
  try {
    loaded = await loadedInTime(file, () => jiti.import(file, { default: true }));
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(
      `The config cannot be loaded.\n  ${placeOf(error, file)}: ${messageOf(error).split("\n")[0]}`,
    );
  }
  const parsed = parsedConfig(loaded, file);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    const where = issue?.path.join(".") || "its default export";
    throw new Problem(`The config is not in order.\n  ${file}: ${where}: ${issue?.message}`);
  }
  return parsed.data as UvranConfig;
}

/** Checks a config; what it has may be computed, and fail. */
function parsedConfig(loaded: unknown, file: string): ReturnType<typeof schema.safeParse> {
  try {
    return schema.safeParse(loaded);
  } catch (error) {
    throw new Problem(`The config cannot be read.\n  ${placeOf(error, file)}: ${messageOf(error)}`);
  }
}

/** The place in the user's own files that an error speaks of: `file:line`, as far as it can be told. */
function placeOf(error: unknown, file: string): string {
  const said = error instanceof Error ? `${error.message}\n${error.stack ?? ""}` : String(error);
  const own = said.split("\n").map((line) => /((?:file:\/\/)?\/[^\s()]+?):(\d+)(?::\d+)?/.exec(line));
  const hit = own.find(
    (match) => match && match[1]!.startsWith(dirname(file)) && !match[1]!.includes("node_modules"),
  );
  if (hit) return `${hit[1]}:${hit[2]}`;
  const bare = /\((\d+):\d+\)/.exec(said);
  return bare ? `${file}:${bare[1]}` : file;
}
