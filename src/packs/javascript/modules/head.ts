import { given } from "./code-file.js";
import { NotAModule } from "./not-a-module.js";
import type { Page } from "./page.js";
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
  const bring = (name: string, module: string): void => {
    if (page.isTaken(name))
      throw new NotAModule(given(name, tree)[0], `\`${name}\` is taken in ${file.path}`, "name.free");
    imports.push(`import { ${name} } from ${quote}${isPrefixed ? "node:" : ""}${module}${quote}${lineEnd}`);
  };
  const path = "fileURLToPath(import.meta.url)";
  if (needsRequire) {
    bring("createRequire", "module");
    values.push(`const require = createRequire(import.meta.url)${lineEnd}`);
  }
  if (hasFolder) bring("dirname", "path");
  if (hasFile || hasFolder || mainTests.length > 0) bring("fileURLToPath", "url");
  if (hasFile) values.push(`const __filename = ${path}${lineEnd}`);
  if (hasFolder) values.push(`const __dirname = dirname(${hasFile ? "__filename" : path})${lineEnd}`);
  for (const test of mainTests) page.replace(test, `process.argv[1] === ${path}`);
  values.push(...moreValues);
  // Imports go ahead of the first one, values ahead of the first statement that is more than an import.
  if (imports.length > 0) page.putAt(page.top.imports, imports, "first");
  if (values.length > 0) page.putAt(page.top.body, values, "last");
}
