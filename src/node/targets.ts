import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { coerce, minVersion, validRange } from "semver";
import type { Target, TargetSource } from "../rules/index.js";
import type { Language, LanguageId } from "../syntax/index.js";

/** Versions by language, as the config gives them. */
export type Targets = Readonly<Partial<Record<LanguageId, string>>>;

/** A manifest that may say which version of a language its project is for. */
interface Manifest {
  readonly languages: readonly LanguageId[];
  readonly file: RegExp;
  /** The version, as the language counts; undefined where the manifest does not say. */
  read(text: string): string | undefined;
}

/** The lowest version that a range lets through; undefined for what is no range. */
function lowest(range: string | undefined): string | undefined {
  if (range === undefined) return undefined;
  const plain = range
    .replace(/~=\s*/g, ">=")
    .replace(/(?<!\|)\|(?!\|)/g, "||")
    .replace(/,/g, " ")
    .replace(/==\s*/g, "=")
    .replace(/!=\s*\S+/g, "");
  if (validRange(plain) === null) return coerce(range)?.version;
  const found = minVersion(plain)?.version;
  return found === "0.0.0" ? undefined : found;
}

const first = (text: string, ...forms: readonly RegExp[]): string | undefined =>
  forms.map((form) => form.exec(text)?.[1]).find((found) => found !== undefined);

interface PackageJson {
  readonly engines?: { readonly node?: string };
  readonly dependencies?: Readonly<Record<string, string>>;
  readonly devDependencies?: Readonly<Record<string, string>>;
}

interface ComposerJson {
  readonly require?: { readonly php?: string };
  readonly config?: { readonly platform?: { readonly php?: string } };
}

function json<T>(text: string): T | undefined {
  try {
    return JSON.parse(text) as T;
  } catch {
    return undefined;
  }
}

/** The year of the newest JavaScript that every release of an engine or compiler from this one on understands. */
function yearBy(
  version: string | undefined,
  steps: readonly (readonly [number, string])[],
): string | undefined {
  const found = coerce(version ?? "");
  if (!found) return undefined;
  const number = found.major + found.minor / 100;
  return steps.filter(([from]) => from <= number).at(-1)?.[1] ?? "2015";
}

/** Node's releases by the language they run without flags. */
const NODE = [
  [6, "2016"],
  [8, "2017"],
  [10, "2018"],
  [12, "2019"],
  [14, "2020"],
  [16, "2021"],
  [18, "2022"],
  [20, "2023"],
  [22, "2024"],
  [24, "2026"],
] as const;

/** The TypeScript compiler's releases by the syntax they understand, whatever they compile it to. */
const TYPESCRIPT = [
  [3.07, "2020"],
  [4, "2021"],
  [4.04, "2022"],
  [5.02, "2026"],
] as const;

const FRAMEWORKS = [
  [/^net(4\d*|standard2\.0|standard1\.\d)$/, "7.3"],
  [/^netcoreapp[12]\./, "7.3"],
  [/^(netcoreapp3\.\d|netstandard2\.1)$/, "8"],
  [/^net5\./, "9"],
  [/^net6\./, "10"],
  [/^net7\./, "11"],
  [/^net8\./, "12"],
  [/^net9\./, "13"],
  [/^net1\d\./, "14"],
] as const;

function csharpVersion(text: string): string | undefined {
  const said = first(text, /<LangVersion>\s*([\d.]+)\s*</);
  if (said !== undefined) return said;
  const framework = first(text, /<TargetFrameworks?>\s*([^<;]+)/)?.trim();
  if (framework === undefined) return /<TargetFrameworkVersion>/.test(text) ? "7.3" : undefined;
  return FRAMEWORKS.find(([form]) => form.test(framework))?.[1];
}

const MANIFESTS: readonly Manifest[] = [
  {
    languages: ["python"],
    file: /^pyproject\.toml$/,
    read: (text) =>
      lowest(first(text, /^\s*requires-python\s*=\s*["']([^"']+)/m, /^\s*python\s*=\s*["']([^"']+)/m)),
  },
  {
    languages: ["python"],
    file: /^setup\.(cfg|py)$/,
    read: (text) => lowest(first(text, /python_requires\s*=\s*["']?([^"'\n]+?)["']?\s*(?:,|\n|$)/)),
  },
  {
    languages: ["php"],
    file: /^composer\.json$/,
    read: (text) => {
      const manifest = json<ComposerJson>(text);
      return lowest(manifest?.config?.platform?.php ?? manifest?.require?.php);
    },
  },
  {
    languages: ["ruby"],
    file: /^(\.ruby-version|Gemfile|.+\.gemspec)$/,
    read: (text) =>
      lowest(
        first(
          text,
          /^\s*ruby\s+["']([^"']+)/m,
          /required_ruby_version\s*=\s*(?:Gem::Requirement\.new\()?\[?["']([^"']+)/,
          /^(?:ruby-)?(\d[\d.]*)\s*$/,
        ),
      ),
  },
  {
    languages: ["java"],
    file: /^(pom\.xml|build\.gradle(\.kts)?)$/,
    read: (text) =>
      first(
        text,
        /<(?:maven\.compiler\.(?:release|source|target)|release|source)>\s*(?:1\.)?(\d+)\s*</,
        /sourceCompatibility\s*=?\s*["']?(?:JavaVersion\.VERSION_)?(?:1[._])?(\d+)/,
        /JavaLanguageVersion\.of\((\d+)\)/,
      ),
  },
  { languages: ["csharp"], file: /\.csproj$/, read: csharpVersion },
  {
    languages: ["cpp"],
    file: /^(CMakeLists\.txt|GNUmakefile|[Mm]akefile(\.am)?|meson\.build|configure\.ac)$/,
    read: (text) => {
      const found = first(
        text,
        /CMAKE_CXX_STANDARD\s+(\d+)/,
        /cxx_std_(\d+)/,
        /(?:-std=|cpp_std=)(?:gnu|c)\+\+(\w\w)/,
      );
      const drafts: Readonly<Record<string, string>> = {
        "0x": "11",
        "1y": "14",
        "1z": "17",
        "2a": "20",
        "2b": "23",
      };
      return found === "98" || found === "03" ? "3" : (drafts[found ?? ""] ?? found);
    },
  },
  {
    languages: ["typescript", "tsx"],
    file: /^package\.json$/,
    read: (text) => {
      const manifest = json<PackageJson>(text);
      return yearBy(
        manifest?.devDependencies?.["typescript"] ?? manifest?.dependencies?.["typescript"],
        TYPESCRIPT,
      );
    },
  },
  {
    languages: ["javascript"],
    file: /^package\.json$/,
    read: (text) => yearBy(lowest(json<PackageJson>(text)?.engines?.node), NODE),
  },
  {
    languages: ["powershell"],
    file: /\.psd1$/,
    read: (text) => first(text, /^\s*PowerShellVersion\s*=\s*["']([\d.]+)/m),
  },
];

/**
 * The versions that a project's code must run on: as its config says, else the nearest manifest above the file that
 * speaks of the language. Of several manifests in one folder the one that comes first by name counts.
 */
export class ProjectTargets implements TargetSource {
  readonly #root: string;
  readonly #config: Targets;
  readonly #found = new Map<string, Target | undefined>();

  constructor(root: string, config: Targets = {}) {
    this.#root = root;
    this.#config = config;
  }

  targetOf({ path, text, language }: { path: string; text: string; language: Language }): Target | undefined {
    const set = this.#config[language.id] ?? (language.id === "tsx" ? this.#config.typescript : undefined);
    if (set !== undefined) return { version: set, says: "by the config" };
    const required =
      language.id === "powershell" ? first(text, /^#Requires\s+-Version\s+([\d.]+)/im) : undefined;
    if (required !== undefined) return { version: required, says: "by #Requires" };
    return this.#inFolder(dirname(path), language);
  }

  #inFolder(folder: string, language: Language): Target | undefined {
    const key = `${language.id} ${folder}`;
    if (!this.#found.has(key)) {
      const above = folder === "." ? undefined : dirname(folder);
      const here = this.#manifestIn(folder, language);
      this.#found.set(key, here ?? (above === undefined ? undefined : this.#inFolder(above, language)));
    }
    return this.#found.get(key);
  }

  #manifestIn(folder: string, { id }: Language): Target | undefined {
    const full = join(this.#root, folder);
    if (!existsSync(full)) return undefined;
    const names = readdirSync(full).sort();
    for (const { languages, file, read } of MANIFESTS.filter((one) => one.languages.includes(id))) {
      for (const name of names.filter((one) => file.test(one))) {
        const version = read(readFileSync(join(full, name), "utf8"));
        if (version !== undefined)
          return { version: version.replace(/(\.0)+$/, ""), says: `by ${join(folder, name)}` };
      }
    }
    return undefined;
  }
}
