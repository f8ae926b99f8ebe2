import { createRequire } from "node:module";

const require = createRequire(import.meta.url);

/** A package that few runs need, loaded at the first call: every command would wait for it otherwise. */
export function whenNeeded<Package>(name: string): () => Package {
  let loaded: { readonly is: Package } | undefined;
  return () => (loaded ??= { is: require(name) as Package }).is;
}
