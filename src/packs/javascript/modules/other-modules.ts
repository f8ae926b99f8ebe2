import { folderOf, normalized } from "../../../core.js";
import { type CodeFile, given } from "./code-file.js";
import type { Forms } from "./forms.js";
import { loadedBy, type Whereabouts } from "./loaded.js";
import type { Manifest } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";

const STATEMENTS = ["import_statement", "export_statement"];

/** Is a file an ES module already? */
export function isModule({ tree }: CodeFile): boolean {
  return tree.root.parts.some((part) => part.is(STATEMENTS));
}

/** A file with `import` in a package of CommonJS is for a tool that turns it into something else. */
export function refuseMixture({ path, tree }: CodeFile, { type }: Manifest): [] {
  const [loaded] = given("require", tree);
  if (loaded) throw new NotAModule(loaded, "the file uses `require` beside `import`");
  if (type !== "module" && !path.endsWith(".mjs"))
    throw new NotAModule(
      tree.root.parts.find((part) => part.is(STATEMENTS)),
      "a tool turns this module into something else",
    );
  return [];
}

/** TypeScript, and files that stay CommonJS. */
export function refuseOther({ path, tree }: CodeFile, where: Whereabouts): void {
  if (!path.endsWith(".cjs"))
    throw new NotAModule(undefined, `${path} is TypeScript, whose compiler writes one kind of module`);
  if (loadedBy(path, tree.text, where.isOwn) !== undefined)
    throw new NotAModule(
      undefined,
      `${path} stays CommonJS, and loads a file of the package with \`require\``,
    );
}

/** Throws a NotAModule for an `import` that was there before, and takes from a file what it exports in another way as a module. */
export function refuseImports({ path, tree }: CodeFile, where: Whereabouts, forms: Forms): void {
  for (const node of tree.root.descendants()) {
    const source = node.is(STATEMENTS)
      ? node.child("source")
      : node.is("call_expression") && node.child("function")?.is("import")
        ? node.child("arguments")?.firstPart
        : undefined;
    if (!source?.is("string")) continue;
    const name = source.text.slice(1, -1);
    const target = name.startsWith(".") ? normalized(folderOf(path) + name) : undefined;
    if (target === undefined || !where.isOwn(target)) continue;
    if (!forms.has(target)) continue;
    const form = forms.of(target);
    const [clause] = node.parts;
    const isDefault = node.is("import_statement") && clause?.firstPart?.is("identifier") === true;
    const isBare = node.is("import_statement") && clause?.same(source) === true;
    const names = [...node.descendants()].filter((one) => one.is(["import_specifier", "export_specifier"]));
    const isAlike =
      form.is === "named"
        ? !isDefault && names.length > 0 && names.every((one) => form.names.has(one.child("name")!.text))
        : isDefault && names.length === 0;
    if (!isBare && !isAlike) throw new NotAModule(node, `${target} exports in another way as a module`);
  }
}
