import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { coerce } from "semver";
import type { LanguageId } from "../syntax/index.js";
import { lowest } from "./manifests.js";
import { messageOf, Problem } from "./problem.js";

/** The version of a product that a project has, and who says so. */
export interface ProductVersion {
  readonly version: string;
  /** As the end of a sentence: "by package-lock.json". */
  readonly says: string;
  /** What a manifest asks for, where the lock file has something that it does not let through. */
  readonly disagrees?: string;
}

/** Where versions of products stand: in files that a tool has locked, or in those that people write. */
interface Place {
  readonly languages: readonly LanguageId[];
  readonly file: RegExp;
  readonly isLock: boolean;
  /** The version, or the range that is asked for. */
  read(text: string, product: string): string | undefined;
}

const SCRIPTS: readonly LanguageId[] = ["javascript", "typescript", "tsx"];

const quoted = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, "\\$&");
const find = (text: string, form: string, flags = "m"): string | undefined =>
  new RegExp(form, flags).exec(text)?.[1];

type Named = Readonly<Record<string, string>>;

interface Dependencies {
  readonly dependencies?: Named;
  readonly devDependencies?: Named;
  readonly peerDependencies?: Named;
}

interface Lock {
  readonly packages?: Readonly<Record<string, { readonly version?: string }>>;
  readonly dependencies?: Readonly<Record<string, { readonly version?: string }>>;
}

interface Composer {
  readonly require?: Named;
  readonly "require-dev"?: Named;
  readonly packages?: readonly { readonly name?: string; readonly version?: string }[];
}

/** A name of Python, in which case, dots, hyphens and underscores do not count. */
const pythonName = (product: string): string =>
  product
    .split(/[-_.]+/)
    .map(quoted)
    .join("[-_.]+");

const PLACES: readonly Place[] = [
  {
    languages: SCRIPTS,
    file: /^package-lock\.json$/,
    isLock: true,
    read: (text, product) => {
      const { packages, dependencies } = JSON.parse(text) as Lock;
      return packages?.[`node_modules/${product}`]?.version ?? dependencies?.[product]?.version;
    },
  },
  {
    languages: SCRIPTS,
    file: /^yarn\.lock$/,
    isLock: true,
    read: (text, product) => find(text, `^"?${quoted(product)}@[^\\n]*:\\n\\s+version:? "?([\\w.+-]+)`),
  },
  {
    languages: SCRIPTS,
    file: /^pnpm-lock\.yaml$/,
    isLock: true,
    read: (text, product) => find(text, `^\\s+'?/?${quoted(product)}@([\\w.+-]+)`),
  },
  {
    languages: SCRIPTS,
    file: /^package\.json$/,
    isLock: false,
    read: (text, product) => {
      const asked = JSON.parse(text) as Dependencies;
      return (
        (asked.dependencies ?? {})[product] ??
        asked.devDependencies?.[product] ??
        asked.peerDependencies?.[product]
      );
    },
  },
  {
    languages: ["python"],
    file: /^(poetry|uv|pdm)\.lock$/,
    isLock: true,
    read: (text, product) => find(text, `^name = "${pythonName(product)}"\\nversion = "([^"]+)"`, "im"),
  },
  {
    languages: ["python"],
    file: /^Pipfile\.lock$/,
    isLock: true,
    read: (text, product) =>
      find(text, `"${pythonName(product)}":\\s*\\{[^}]*"version":\\s*"==([^"]+)"`, "i"),
  },
  {
    languages: ["python"],
    file: /^(requirements.*\.txt|constraints.*\.txt|pyproject\.toml|setup\.cfg|setup\.py|Pipfile)$/,
    isLock: false,
    read: (text, product) =>
      find(
        text,
        `^[\\s"']*${pythonName(product)}(?:\\[[^\\]]*\\])?\\s*((?:[=~<>!^]=?=?\\s*[\\w.*]+[\\s,]*)+)`,
        "im",
      ) ??
      find(
        text,
        `["']${pythonName(product)}(?:\\[[^\\]]*\\])?\\s*((?:[=~<>!^]=?=?\\s*[\\w.*]+[\\s,]*)+)["']`,
        "i",
      ) ??
      find(text, `^"?${pythonName(product)}"?\\s*=\\s*(?:\\{[^}]*version\\s*=\\s*)?"([^"]+)"`, "im"),
  },
  {
    languages: ["java"],
    file: /^pom\.xml$/,
    isLock: false,
    read: (text, product) => {
      const [group, artifact] = product.split(":");
      const found = find(
        text,
        `<groupId>\\s*${quoted(group ?? "")}\\s*</groupId>\\s*<artifactId>\\s*${quoted(artifact ?? "")}\\s*</artifactId>\\s*<version>\\s*([^<\\s]+)`,
        "",
      );
      const property = /^\$\{(.+)\}$/.exec(found ?? "")?.[1];
      return property === undefined ? found : find(text, `<${quoted(property)}>\\s*([^<\\s]+)`, "");
    },
  },
  {
    languages: ["java"],
    file: /^build\.gradle(\.kts)?$|^libs\.versions\.toml$/,
    isLock: false,
    read: (text, product) => find(text, `["']${quoted(product)}:([\\w.+-]+)["']`),
  },
  {
    languages: ["php"],
    file: /^composer\.lock$/,
    isLock: true,
    read: (text, product) =>
      (JSON.parse(text) as Composer).packages?.find(({ name }) => name === product)?.version,
  },
  {
    languages: ["php"],
    file: /^composer\.json$/,
    isLock: false,
    read: (text, product) => {
      const asked = JSON.parse(text) as Composer;
      return asked.require?.[product] ?? asked["require-dev"]?.[product];
    },
  },
  {
    languages: ["ruby"],
    file: /^Gemfile\.lock$/,
    isLock: true,
    read: (text, product) => find(text, `^    ${quoted(product)} \\(([\\w.]+)\\)`),
  },
  {
    languages: ["ruby"],
    file: /^Gemfile$|\.gemspec$/,
    isLock: false,
    read: (text, product) =>
      find(
        text,
        `(?:gem|add_dependency|add_runtime_dependency)[ (]["']${quoted(product)}["'],\\s*["']([^"']+)["']`,
      ),
  },
  {
    languages: ["csharp"],
    file: /\.csproj$|^Directory\.Packages\.props$|^packages\.config$/,
    isLock: false,
    read: (text, product) =>
      find(text, `<Package(?:Reference|Version)\\s+Include="${quoted(product)}"\\s+Version="([^"]+)"`, "i") ??
      find(text, `<package\\s+id="${quoted(product)}"\\s+version="([^"]+)"`, "i"),
  },
  {
    languages: ["cpp"],
    file: /^CMakeLists\.txt$|^conanfile\.txt$/,
    isLock: false,
    read: (text, product) =>
      find(text, `find_package\\(\\s*${quoted(product)}\\s+([\\d.]+)`, "i") ??
      find(text, `^${quoted(product)}/([\\d.]+)`),
  },
  {
    languages: ["powershell"],
    file: /\.psd1$/,
    isLock: false,
    read: (text, product) =>
      find(
        text,
        `ModuleName\\s*=\\s*['"]${quoted(product)}['"]\\s*;?\\s*ModuleVersion\\s*=\\s*['"]([\\d.]+)`,
        "i",
      ),
  },
];

/**
 * The version of a product that the manifests and lock files in a folder name: what is locked first, else the lowest that
 * a manifest lets through; undefined where none speaks of it. Throws a Problem for a file that cannot be read.
 */
export function productVersion(
  folder: string,
  product: string,
  language: LanguageId,
): ProductVersion | undefined {
  const names = existsSync(folder) ? readdirSync(folder).sort() : [];
  let locked: ProductVersion | undefined;
  let asked: (ProductVersion & { readonly range: string }) | undefined;
  for (const { languages, file, isLock, read } of PLACES) {
    if (!languages.includes(language)) continue;
    for (const name of names.filter((one) => file.test(one))) {
      const found = readIn(join(folder, name), (text) => read(text, product));
      const version = lowest(found, "0.0.0");
      if (found === undefined || version === undefined) continue;
      if (isLock) locked ??= { version, says: `by ${name}` };
      else asked ??= { version, says: `by ${name}`, range: found };
    }
  }
  if (!locked || !asked) return locked ?? (asked && { version: asked.version, says: asked.says });
  const isOlder = compareVersions(locked.version, asked.version) < 0;
  return isOlder ? { ...locked, disagrees: `${asked.range.trim()} ${asked.says}` } : locked;
}

function readIn(file: string, read: (text: string) => string | undefined): string | undefined {
  try {
    return read(readFileSync(file, "utf8"));
  } catch (error) {
    throw new Problem(`${file} cannot be read: ${messageOf(error)}. It says which versions are installed.`);
  }
}

/** Less than 0 where the first version is the older one, more than 0 where it is the newer one. */
export function compareVersions(one: string, other: string): number {
  return coerce(one)?.compare(coerce(other) ?? "0.0.0") ?? 0;
}

/** A version without the zeros at its end that say nothing: `2.0.0` is 2. */
export function shortVersion(version: string): string {
  return version.replace(/^v/, "").replace(/(\.0)+$/, "");
}
