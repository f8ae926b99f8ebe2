import { escaped, type LanguageId } from "../../syntax/index.js";
import { yamlPackage } from "../yaml.js";
import { find, type Named, type Place } from "./place.js";

const languages: readonly LanguageId[] = ["javascript", "typescript", "tsx"];

interface Manifest {
  readonly dependencies?: Named;
  readonly devDependencies?: Named;
  readonly peerDependencies?: Named;
}

interface PackageLock {
  readonly packages?: Readonly<Record<string, { readonly version?: string }>>;
  readonly dependencies?: Readonly<Record<string, { readonly version?: string }>>;
}

interface PnpmLock {
  readonly importers?: Readonly<Record<string, PnpmAsked>>;
  readonly packages?: Readonly<Record<string, unknown>>;
}

interface PnpmAsked {
  readonly dependencies?: Readonly<Record<string, string | { readonly version: string }>>;
  readonly devDependencies?: Readonly<Record<string, string | { readonly version: string }>>;
}

/** The manifests and lock files of JavaScript and TypeScript. */
export const NPM: readonly Place[] = [
  {
    languages,
    file: /^(package-lock|npm-shrinkwrap)\.json$/,
    isLock: true,
    read: (text, product, below) => {
      const { packages, dependencies } = JSON.parse(text) as PackageLock;
      const own = below === "" ? undefined : packages?.[`${below}/node_modules/${product}`];
      return (own ?? packages?.[`node_modules/${product}`] ?? dependencies?.[product])?.version;
    },
  },
  {
    languages,
    file: /^yarn\.lock$/,
    isLock: true,
    read: (text, product) => find(text, `^"?${escaped(product)}@[^\\n]*:\\n\\s+version:? "?([\\w.+-]+)`),
  },
  {
    languages,
    file: /^pnpm-lock\.yaml$/,
    isLock: true,
    read: (text, product, below) => {
      const { importers, packages = {} } = (yamlPackage().parse(text) ?? {}) as PnpmLock;
      const { dependencies, devDependencies } = importers?.[below || "."] ?? {};
      const own = dependencies?.[product] ?? devDependencies?.[product];
      if (own !== undefined) return (typeof own === "string" ? own : own.version).replace(/\(.*/, "");
      const names = Object.keys(packages).map((name) => name.replace(/^\//, ""));
      return names
        .find((name) => name.startsWith(`${product}@`))
        ?.slice(product.length + 1)
        .replace(/\(.*/, "");
    },
  },
  {
    languages,
    file: /^package\.json$/,
    isLock: false,
    read: (text, product) => {
      const { dependencies = {}, devDependencies = {}, peerDependencies = {} } = JSON.parse(text) as Manifest;
      return dependencies[product] ?? devDependencies[product] ?? peerDependencies[product];
    },
  },
];
