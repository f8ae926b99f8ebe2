import type * as fastXmlParser from "fast-xml-parser";
import { parse } from "smol-toml";
import { escaped } from "../../syntax/index.js";
import { whenNeeded } from "../when-needed.js";
import { find, listOf, type Named, type Place } from "./place.js";

const xmlPackage = whenNeeded<typeof fastXmlParser>("fast-xml-parser");

/** Elements by their names, attributes with `@_` before theirs; every value as its text. */
function xmlOf(text: string): unknown {
  const { XMLParser } = xmlPackage();
  return new XMLParser({ ignoreAttributes: false, parseTagValue: false, parseAttributeValue: false }).parse(
    text,
  );
}

interface Artifact {
  readonly groupId?: string;
  readonly artifactId?: string;
  readonly version?: string;
}

interface Maven {
  readonly project?: {
    readonly properties?: Named;
    readonly dependencies?: { readonly dependency?: Artifact | readonly Artifact[] };
    readonly dependencyManagement?: {
      readonly dependencies?: { readonly dependency?: Artifact | readonly Artifact[] };
    };
  };
}

interface Catalog {
  readonly versions?: Readonly<Record<string, string | { readonly require?: string }>>;
  readonly libraries?: Readonly<
    Record<
      string,
      {
        readonly module?: string;
        readonly group?: string;
        readonly name?: string;
        readonly version?: string | { readonly ref?: string };
      }
    >
  >;
}

interface Composer {
  readonly require?: Named;
  readonly "require-dev"?: Named;
  readonly packages?: readonly { readonly name?: string; readonly version?: string }[];
  readonly "packages-dev"?: readonly { readonly name?: string; readonly version?: string }[];
}

interface Reference {
  readonly "@_Include"?: string;
  readonly "@_Version"?: string;
  readonly Version?: string;
}

interface Group {
  readonly PackageReference?: Reference | readonly Reference[];
  readonly PackageVersion?: Reference | readonly Reference[];
}

/** The manifests and lock files of Java, PHP, Ruby, C#, C++ and PowerShell. */
export const OTHERS: readonly Place[] = [
  {
    languages: ["java"],
    file: /^pom\.xml$/,
    isLock: false,
    read: (text, product) => {
      const { project } = xmlOf(text) as Maven;
      const all = [project?.dependencies, project?.dependencyManagement?.dependencies];
      const found = all
        .flatMap((one) => listOf(one?.dependency))
        .find(
          ({ groupId, artifactId, version }) =>
            `${groupId}:${artifactId}` === product && version !== undefined,
        );
      const property = /^\$\{(.+)\}$/.exec(found?.version ?? "")?.[1];
      return property === undefined ? found?.version : project?.properties?.[property];
    },
  },
  {
    languages: ["java"],
    file: /^libs\.versions\.toml$/,
    isLock: false,
    read: (text, product) => {
      const { versions = {}, libraries = {} } = parse(text) as Catalog;
      const found = Object.values(libraries).find(
        ({ module, group, name }) => (module ?? `${group}:${name}`) === product,
      )?.version;
      const named = typeof found === "object" ? versions[found.ref ?? ""] : found;
      return typeof named === "object" ? named.require : named;
    },
  },
  {
    languages: ["java"],
    file: /^build\.gradle(\.kts)?$/,
    isLock: false,
    read: (text, product) => find(text, `["']${escaped(product)}:([\\w.+-]+)["']`),
  },
  {
    languages: ["php"],
    file: /^composer\.lock$/,
    isLock: true,
    read: (text, product) => {
      const { packages = [], "packages-dev": others = [] } = JSON.parse(text) as Composer;
      return [...packages, ...others].find(({ name }) => name === product)?.version;
    },
  },
  {
    languages: ["php"],
    file: /^composer\.json$/,
    isLock: false,
    read: (text, product) => {
      const { require = {}, "require-dev": others = {} } = JSON.parse(text) as Composer;
      return require[product] ?? others[product];
    },
  },
  {
    languages: ["ruby"],
    file: /^Gemfile\.lock$/,
    isLock: true,
    read: (text, product) => find(text, `^    ${escaped(product)} \\(([\\w.]+)\\)`),
  },
  {
    languages: ["ruby"],
    file: /^Gemfile$|\.gemspec$/,
    isLock: false,
    read: (text, product) =>
      find(
        text,
        `(?:gem|add_dependency|add_runtime_dependency)[ (]["']${escaped(product)}["'],\\s*["']([^"']+)["']`,
      ),
  },
  {
    languages: ["csharp"],
    file: /\.csproj$|^Directory\.Packages\.props$/,
    isLock: false,
    read: (text, product) => {
      const { Project } = xmlOf(text) as { Project?: { ItemGroup?: Group | readonly Group[] } };
      const found = listOf(Project?.ItemGroup)
        .flatMap((group) => [...listOf(group.PackageReference), ...listOf(group.PackageVersion)])
        .find((one) => one["@_Include"]?.toLowerCase() === product.toLowerCase());
      return found?.["@_Version"] ?? found?.Version;
    },
  },
  {
    languages: ["csharp"],
    file: /^packages\.config$/,
    isLock: false,
    read: (text, product) => {
      type Package = { readonly "@_id"?: string; readonly "@_version"?: string };
      const { packages } = xmlOf(text) as { packages?: { package?: Package | readonly Package[] } };
      return listOf(packages?.package).find((one) => one["@_id"]?.toLowerCase() === product.toLowerCase())?.[
        "@_version"
      ];
    },
  },
  {
    languages: ["cpp"],
    file: /^CMakeLists\.txt$|^conanfile\.txt$/,
    isLock: false,
    read: (text, product) =>
      find(text, `find_package\\(\\s*${escaped(product)}\\s+([\\d.]+)`, "i") ??
      find(text, `^${escaped(product)}/([\\d.]+)`),
  },
  {
    languages: ["powershell"],
    file: /\.psd1$/,
    isLock: false,
    read: (text, product) =>
      find(
        text,
        `ModuleName\\s*=\\s*['"]${escaped(product)}['"]\\s*;?\\s*ModuleVersion\\s*=\\s*['"]([\\d.]+)`,
        "i",
      ),
  },
];
