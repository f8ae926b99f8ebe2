import { coerce, minVersion, satisfies, validRange } from "semver";
import { languageOf, type LanguageId } from "../syntax/index.js";

/** A manifest that may say which version of a language its project is for. */
export interface Manifest {
  readonly languages: readonly LanguageId[];
  readonly file: RegExp;
  /** The version, as the language counts; undefined where the manifest does not say. */
  read(text: string): string | undefined;
  /** The manifest that this one takes what it does not say from, by its path from this one's folder. */
  parent?(text: string): string | undefined;
}

/**
 * The lowest version that a range lets through; undefined for what is no range. A range without a lower bound lets
 * through all that came before: it says nothing where the version that is assumed is in it, and otherwise that
 * it may be as old as can be.
 */
export function lowest(range: string | undefined, assumed: string): string | undefined {
  if (range === undefined) return undefined;
  const plain = plainRange(range);
  if (validRange(plain) === null) return coerce(range)?.version;
  const found = minVersion(plain)?.version;
  if (found !== "0.0.0") return found;
  return satisfies(coerce(assumed) ?? "0.0.0", plain) ? undefined : "0.0.0";
}

/** Does a range of any of these languages let a version through? False for what is no range. */
export function letsThrough(range: string, version: string): boolean {
  return satisfies(coerce(version) ?? "0.0.0", plainRange(range));
}

/** A range in the form that one package reads, whatever the language. */
function plainRange(range: string): string {
  return range
    .replace(/~=\s*/g, ">=")
    .replace(/(?<!\|)\|(?!\|)/g, "||")
    .replace(/,/g, " ")
    .replace(/===?\s*/g, "=")
    .replace(/!=\s*\S+/g, "")
    .trim();
}

const first = (text: string, ...forms: readonly RegExp[]): string | undefined =>
  forms.map((form) => form.exec(text)?.[1]).find((found) => found !== undefined);

/** The lowest of all that a form finds. */
function least(
  text: string,
  form: RegExp,
  read = (found: string): string | undefined => found,
): string | undefined {
  const all = [...text.matchAll(form)].flatMap((match) => read(match[1]!) ?? []);
  return all.sort((a, b) => coerce(a)?.compare(coerce(b) ?? "0.0.0") ?? 0)[0];
}

interface PackageJson {
  readonly engines?: { readonly node?: string };
  readonly volta?: { readonly node?: string };
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
  return steps.filter(([from]) => from <= number).at(-1)?.[1] ?? "2009";
}

/** Node's releases by the language they run without flags. */
const NODE = [
  [4, "2015"],
  [6, "2016"],
  [8, "2017"],
  [10, "2018"],
  [12, "2019"],
  [14, "2020"],
  [15, "2021"],
  [17, "2022"],
  [20, "2023"],
  [22, "2024"],
  [24, "2026"],
] as const;
/** The release of Node that runs what is assumed. */
const ASSUMED_NODE = "18.0.0";
/** Node's releases that are kept long, by the names that stand for them. */
const NODE_NAMES: Readonly<Record<string, string>> = {
  argon: "4",
  boron: "6",
  carbon: "8",
  dubnium: "10",
  erbium: "12",
  fermium: "14",
  gallium: "16",
  hydrogen: "18",
  iron: "20",
  jod: "22",
  krypton: "24",
};

/** The release of a tool in a file that switches between releases: a line `python 3.11.4` for each tool. */
const switchedTo = (text: string, tool: string): string | undefined =>
  first(text, new RegExp(`^${tool}[ \\t]+(?:[a-z]+-)*(\\d[\\d.]*)`, "m"));

/** The TypeScript compiler's releases by the syntax they understand, whatever they compile it to. */
const TYPESCRIPT = [
  [1, "2015"],
  [1.07, "2017"],
  [2.01, "2018"],
  [3.07, "2020"],
  [4, "2021"],
  [4.04, "2022"],
  [5.02, "2026"],
] as const;

/**
 * What a compiler compiles to, it understands too, with the library of that year. What it compiles to older code for may be of
 * any year, so that older targets say nothing.
 */
function compiledTo(text: string): string | undefined {
  const year = first(text, /"target"\s*:\s*"es(20\d\d)"/i);
  return year !== undefined && year >= languageOf("typescript").assumedVersion ? year : undefined;
}

const FRAMEWORKS = [
  [/^net(4\d*|standard2\.0|standard1\.\d)$/, "7.3"],
  [/^net[123]\d$/, "7.3"],
  [/^netcoreapp[12]\./, "7.3"],
  [/^(netcoreapp3\.\d|netstandard2\.1)$/, "8"],
  [/^net5\./, "9"],
  [/^net6\./, "10"],
  [/^net7\./, "11"],
  [/^net8\./, "12"],
  [/^net9\./, "13"],
  [/^net1\d\./, "14"],
] as const;

/** What compilers take unless told otherwise: by the oldest framework that the project is built for. */
function csharpVersion(text: string): string | undefined {
  const said = first(text, /<LangVersion>\s*(?:ISO-)?([\d.]+)\s*</);
  if (said !== undefined) return said;
  const frameworks = first(text, /<TargetFrameworks?>\s*([^<]+)/)?.split(";") ?? [];
  const versions = frameworks.flatMap((one) => FRAMEWORKS.find(([form]) => form.test(one.trim()))?.[1] ?? []);
  if (versions.length > 0) return versions.sort((a, b) => Number(a) - Number(b))[0];
  return /<TargetFrameworkVersion>/.test(text) ? "7.3" : undefined;
}

/** A version in a Maven file, through the property that it may be given by. */
function mavenVersion(text: string): string | undefined {
  const property = (name: string): string | undefined =>
    first(text, new RegExp(`<${name.replace(/\./g, "\\.")}>\\s*([^<]+?)\\s*<`));
  const names = [
    "maven.compiler.release",
    "maven.compiler.target",
    "maven.compiler.source",
    "maven.compile.target",
    "maven.compile.source",
    "compiler.target",
    "compiler.source",
    "java.version",
    "jdk.version",
    "java.source.version",
  ];
  const plugin = /maven-compiler-plugin<\/artifactId>([^]*?)<\/plugin>/.exec(text)?.[1] ?? "";
  let found =
    first(plugin, /<release>\s*([^<\s]+)/, /<target>\s*([^<\s]+)/, /<source>\s*([^<\s]+)/) ??
    names.map(property).find((one) => one !== undefined);
  for (let i = 0; i < 4 && found?.startsWith("${"); i++) found = property(found.slice(2, -1));
  return /^(?:1\.)?(\d+)$/.exec(found ?? "")?.[1];
}

/** Where the parent of a Maven file stands, if that is said; the folder above is looked at anyway. */
function mavenParent(text: string): string | undefined {
  const path = first(text, /<relativePath>\s*([^<\s]+)\s*</);
  return path === undefined || path.endsWith(".xml") ? path : `${path}/pom.xml`;
}

const CPP_DRAFTS: Readonly<Record<string, string>> = {
  "98": "3",
  "03": "3",
  "0x": "11",
  "1y": "14",
  "1z": "17",
  "2a": "20",
  "2b": "23",
};

/** The lowest version of Ruby that a manifest lets through. */
function rubyVersion(text: string): string | undefined {
  const range = first(
    text,
    /^\s*ruby\s+["']([^"']+)/m,
    /required_ruby_version\s*=\s*(?:Gem::Requirement\.new\()?\[?["']([^"']+)/,
    /^(?:ruby-)?(\d[\d.]*)(?:-p\d+)?\s*$/,
  );
  return switchedTo(text, "ruby") ?? lowest(range, languageOf("ruby").assumedVersion);
}

/** What is read, the surest first for each language. */
export const MANIFESTS: readonly Manifest[] = [
  {
    languages: ["python"],
    file: /^(pyproject\.toml|setup\.(cfg|py))$/,
    read: (text) =>
      lowest(
        first(
          text,
          /^\s*requires-python\s*=\s*["']([^"']+)/m,
          /^\s*python\s*=\s*["']([^"']+)/m,
          /python_requires["']?\s*[=:]\s*\(?["']?([^"'\n]+?)["']?\s*(?:,\s*\n|\)|\n|$)/,
        ),
        languageOf("python").assumedVersion,
      ) ?? least(text, /Programming Language :: Python :: (\d\.\d+)/g),
  },
  {
    languages: ["python"],
    file: /^(Pipfile|\.python-version|runtime\.txt|\.tool-versions)$/,
    read: (text) =>
      first(text, /^python_(?:full_)?version\s*=\s*"(\d[\d.]*)"/m) ??
      least(text, /^(?:python-)?(\d+\.\d[\d.]*)[ \t]*$/gm) ??
      switchedTo(text, "python"),
  },
  {
    languages: ["php"],
    file: /^composer\.json$/,
    read: (text) => {
      const manifest = json<ComposerJson>(text);
      return lowest(
        manifest?.config?.platform?.php ?? manifest?.require?.php,
        languageOf("php").assumedVersion,
      );
    },
  },
  { languages: ["ruby"], file: /\.gemspec$/, read: rubyVersion },
  { languages: ["ruby"], file: /^(\.ruby-version|Gemfile|\.tool-versions)$/, read: rubyVersion },
  { languages: ["java"], file: /^pom\.xml$/, read: mavenVersion, parent: mavenParent },
  {
    languages: ["java"],
    file: /^(build\.gradle(\.kts)?|build\.xml|\.settings\/org\.eclipse\.jdt\.core\.prefs)$/,
    read: (text) =>
      first(
        text,
        /options\.release\s*(?:=|\.set\()\s*(\d+)/,
        /targetCompatibility\s*=?\s*["']?(?:JavaVersion\.VERSION_)?(?:1[._])?(\d+)/,
        /sourceCompatibility\s*=?\s*["']?(?:JavaVersion\.VERSION_)?(?:1[._])?(\d+)/,
        /JavaLanguageVersion\.of\((\d+)\)/,
        /jvmToolchain\((\d+)\)/,
        /<javac\b[^>]*\b(?:target|release|source)\s*=\s*"(?:1\.)?(\d+)"/,
        /^org\.eclipse\.jdt\.core\.compiler\.source=(?:1\.)?(\d+)/m,
      ),
  },
  {
    languages: ["java"],
    file: /^(\.java-version|\.tool-versions)$/,
    read: (text) =>
      /^(?:1\.)?(\d+)/.exec(first(text, /^(\d[\d.]*)\s*$/m) ?? switchedTo(text, "java") ?? "")?.[1],
  },
  { languages: ["csharp"], file: /(\.csproj|^Directory\.Build\.props)$/, read: csharpVersion },
  {
    languages: ["cpp"],
    file: /^(CMakeLists\.txt|.+\.cmake|GNUmakefile|[Mm]akefile(\.am)?|meson\.build|configure\.(ac|in)|.+\.(pro|vcxproj))$/,
    read: (text) =>
      least(
        text,
        /(?:\bCXX_STANDARD["\s]+|CMAKE_CXX_STANDARD["\s=]+|cxx_std_|-std=(?:gnu|c)\+\+|cpp_std=(?:gnu|c)\+\+|CXX_COMPILE_STDCXX\(\[?|CXX_COMPILE_STDCXX_|CONFIG\s*\+=\s*c\+\+|stdcpp)(\d\w)\b/g,
        (found) => CPP_DRAFTS[found] ?? (/^\d\d$/.test(found) ? found : undefined),
      ),
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
  { languages: ["typescript", "tsx"], file: /^tsconfig.*\.json$/, read: compiledTo },
  {
    languages: ["javascript"],
    file: /^package\.json$/,
    read: (text) => {
      const { engines, volta } = json<PackageJson>(text) ?? {};
      return yearBy(lowest(engines?.node, ASSUMED_NODE) ?? volta?.node, NODE);
    },
  },
  {
    languages: ["javascript"],
    file: /^(\.nvmrc|\.node-version|\.tool-versions)$/,
    read: (text) => {
      const named = NODE_NAMES[first(text, /^lts\/([a-z]+)\s*$/m) ?? ""];
      return yearBy(named ?? first(text, /^v?(\d[\d.]*)\s*$/m) ?? switchedTo(text, "nodejs"), NODE);
    },
  },
  {
    languages: ["powershell"],
    file: /\.psd1$/,
    read: (text) => first(text, /^\s*PowerShellVersion\s*=\s*["']([\d.]+)/m),
  },
];
