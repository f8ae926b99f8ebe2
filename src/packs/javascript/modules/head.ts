import { given } from "./code-file.js";
import type { Page } from "./page.js";
import { isKept, simplePattern } from "./pattern.js";
import { resolvesPaths } from "./requires.js";

/**
 * Writes what stands ahead of the code of a module: further imports, `require` for what is no module, the paths of the file, and
 * further declarations.
 */
export function writeHead(page: Page, moreImports: readonly string[], moreValues: readonly string[]): void {
  const { tree, file, lineEnd } = page;
  const { loadings, mainTests } = file;
  const needsRequire = loadings.some(({ how }) => how === "stays") || resolvesPaths(file);
  const [hasFile, hasFolder] = ["__filename", "__dirname"].map((name) => given(name, tree).length > 0);
  const isPrefixed = loadings.some(({ name }) => name.startsWith("node:"));
  const quote =
    loadings.find(({ text }) => text.is("string"))?.text.text[0] ?? (tree.text.includes("'") ? "'" : '"');
  const imports = [...moreImports];
  const values: string[] = [];
  const bring = (name: string, module: string): string => {
    const there = namedImport(page, name, module);
    if (there !== undefined) return there;
    const local = page.choose([name]);
    const what = local === name ? name : `${name} as ${local}`;
    imports.push(`import { ${what} } from ${quote}${isPrefixed ? "node:" : ""}${module}${quote}${lineEnd}`);
    return local;
  };
  if (needsRequire)
    values.push(`const require = ${bring("createRequire", "module")}(import.meta.url)${lineEnd}`);
  const dirname = hasFolder ? bring("dirname", "path") : "";
  const isLocated = hasFile || hasFolder || mainTests.length > 0;
  const path = isLocated ? `${bring("fileURLToPath", "url")}(import.meta.url)` : "";
  if (hasFile) values.push(`const __filename = ${path}${lineEnd}`);
  if (hasFolder) values.push(`const __dirname = ${dirname}(${hasFile ? "__filename" : path})${lineEnd}`);
  for (const test of mainTests) page.replace(test, `process.argv[1] === ${path}`);
  values.push(...moreValues);
  // Imports go ahead of the first one, values ahead of the first statement that is more than an import.
  if (imports.length > 0) page.putAt(page.top.imports, imports, "first");
  if (values.length > 0) page.putAt(page.top.body, values, "last");
}

/** The variable by which a file imports a name of a module of Node as it is. */
function namedImport({ file }: Page, name: string, module: string): string | undefined {
  for (const { loaded, how, declarator, name: from, member } of file.loadings) {
    if (loaded.is !== "built in" || how !== "bound" || from.replace(/^node:/, "") !== module) continue;
    const target = declarator!.child("name")!;
    const local = member
      ? member.text === name && target.is("identifier") && isKept(target)
        ? target
        : undefined
      : simplePattern(target)?.find(({ key, local }) => key === name && isKept(local))?.local;
    if (local) return local.text;
  }
  return undefined;
}
