import { parse } from "smol-toml";
import { escaped, type LanguageId } from "../../syntax/index.js";
import { find, type Place } from "./place.js";

const languages: readonly LanguageId[] = ["python"];

/** A name of Python, in which case, dots, hyphens and underscores do not count. */
const plain = (product: string): string => product.toLowerCase().replace(/[-_.]+/g, "-");

/** The same as a form to look for. */
const form = (product: string): string =>
  product
    .split(/[-_.]+/)
    .map(escaped)
    .join("[-_.]+");

type Asked = Readonly<Record<string, string | { readonly version?: string }>>;

/** What is asked for by name: `combwork = "^1.4"`. */
function named(asked: Asked | undefined, product: string): string | undefined {
  const [, found] = Object.entries(asked ?? {}).find(([name]) => plain(name) === plain(product)) ?? [];
  return typeof found === "string" ? found : found?.version;
}

/** What is asked for in a line: `combwork[all] >=1.4; python_version > "3.8"`. */
function inLine(lines: readonly string[], product: string): string | undefined {
  const line = new RegExp(`^\\s*${form(product)}(?:\\[[^\\]]*\\])?\\s*\\(?\\s*([=~<>!^][^;#)]*)`, "i");
  return lines.map((one) => line.exec(one)?.[1]).find((found) => found !== undefined);
}

interface Project {
  readonly project?: {
    readonly dependencies?: readonly string[];
    readonly "optional-dependencies"?: Readonly<Record<string, readonly string[]>>;
  };
  readonly "dependency-groups"?: Readonly<Record<string, readonly unknown[]>>;
  readonly tool?: {
    readonly poetry?: {
      readonly dependencies?: Asked;
      readonly "dev-dependencies"?: Asked;
      readonly group?: Readonly<Record<string, { readonly dependencies?: Asked }>>;
    };
  };
}

interface Locked {
  readonly package?: readonly { readonly name?: string; readonly version?: string }[];
}

interface PipfileLock {
  readonly default?: Asked;
  readonly develop?: Asked;
}

/** The manifests and lock files of Python. */
export const PYTHON: readonly Place[] = [
  {
    languages,
    file: /^(poetry|uv|pdm)\.lock$/,
    isLock: true,
    read: (text, product) =>
      (parse(text) as Locked).package?.find(({ name = "" }) => plain(name) === plain(product))?.version,
  },
  {
    languages,
    file: /^Pipfile\.lock$/,
    isLock: true,
    read: (text, product) => {
      const { default: used, develop } = JSON.parse(text) as PipfileLock;
      return (named(used, product) ?? named(develop, product))?.replace(/^==/, "");
    },
  },
  {
    languages,
    file: /^pyproject\.toml$/,
    isLock: false,
    read: (text, product) => {
      const { project = {}, tool, "dependency-groups": groups = {} } = parse(text) as Project;
      const poetry = tool?.poetry;
      const lines = [
        ...(project.dependencies ?? []),
        ...Object.values(project["optional-dependencies"] ?? {}).flat(),
        ...Object.values(groups).flat().map(String),
      ];
      const tables = [
        poetry?.dependencies,
        poetry?.["dev-dependencies"],
        ...Object.values(poetry?.group ?? {}).map(({ dependencies }) => dependencies),
      ];
      return (
        inLine(lines, product) ??
        tables.map((one) => named(one, product)).find((found) => found !== undefined)
      );
    },
  },
  {
    languages,
    file: /^Pipfile$/,
    isLock: false,
    read: (text, product) => {
      const { packages, "dev-packages": others } = parse(text) as Readonly<Record<string, Asked | undefined>>;
      return named(packages, product) ?? named(others, product);
    },
  },
  {
    languages,
    file: /^(requirements.*|constraints.*)\.txt$/,
    isLock: false,
    read: (text, product) => inLine(text.split("\n"), product),
  },
  {
    languages,
    file: /^setup\.cfg$/,
    isLock: false,
    read: (text, product) => inLine(text.replace(/^install_requires\s*=\s*/m, "").split("\n"), product),
  },
  {
    languages,
    file: /^setup\.py$/,
    isLock: false,
    read: (text, product) =>
      find(text, `["']\\s*${form(product)}(?:\\[[^\\]]*\\])?\\s*([=~<>!^][^;"']*)`, "i"),
  },
];
