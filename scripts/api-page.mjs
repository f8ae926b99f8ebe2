import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import ts from "typescript";

const at = (path) => fileURLToPath(new URL(`../${path}`, import.meta.url));

/** The page of all names that `uvran` exports, from their declarations: what each is for, and its signature. */
export function apiPage() {
  const entry = at("dist/index.d.ts");
  const program = ts.createProgram([entry], {
    module: ts.ModuleKind.NodeNext,
    moduleResolution: ts.ModuleResolutionKind.NodeNext,
    target: ts.ScriptTarget.ES2022,
    types: [],
  });
  const checker = program.getTypeChecker();
  const out = [
    "# The names of uvran",
    "",
    "Written from the declarations and their comments; the compiler shows the same while a rule is written. What is not here is",
    "in `uvran/core`. [Writing a rule](writing-rules.md) says how it fits together, [the cookbook](cookbook.md) shows it at work.",
    "",
  ];
  for (const [title, names] of groups(readFileSync(at("src/index.ts"), "utf8"))) {
    out.push(`## ${title}`, "");
    for (const name of names) {
      const symbol = exported(checker, program.getSourceFile(entry), name);
      const says = ts.displayPartsToString(symbol.getDocumentationComment(checker)).replace(/\s+/g, " ");
      out.push(`**\`${signature(checker, symbol, name)}\`**`, "", ...(says === "" ? [] : [says, ""]));
      const members = membersOf(checker, symbol);
      if (members.length > 0) out.push(...members, "");
    }
  }
  return `${out.join("\n").trimEnd()}\n`;
}

/** The names of the entry point in its order, under the comments that head them. */
function groups(text) {
  const file = ts.createSourceFile("index.ts", text, ts.ScriptTarget.ES2022, true);
  const found = new Map();
  let title = "";
  for (const statement of file.statements) {
    for (const { pos, end } of ts.getLeadingCommentRanges(text, statement.getFullStart()) ?? [])
      if (text.startsWith("//", pos))
        title = text
          .slice(pos + 2, end)
          .trim()
          .replace(/\.$/, "");
    if (!found.has(title)) found.set(title, []);
    found.get(title).push(...statement.exportClause.elements.map((one) => one.name.text));
  }
  return found;
}

function exported(checker, file, name) {
  const module = checker.getSymbolAtLocation(file);
  const symbol = checker.getExportsOfModule(module).find((one) => one.name === name);
  return symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
}

/** The members of a class or an interface, each with its type and what is said of it. */
function membersOf(checker, symbol) {
  const [declaration] = symbol.declarations;
  if (!ts.isClassDeclaration(declaration) && !ts.isInterfaceDeclaration(declaration)) return [];
  return checker
    .getDeclaredTypeOfSymbol(symbol)
    .getProperties()
    .filter(({ name }) => !name.startsWith("#") && !name.startsWith("__"))
    .map((member) => {
      const [own] = member.declarations ?? [];
      const type = checker.typeToString(
        checker.getTypeOfSymbolAtLocation(member, own ?? declaration),
        undefined,
        ts.TypeFormatFlags.NoTruncation,
      );
      const isMethod = own && (ts.isMethodDeclaration(own) || ts.isMethodSignature(own));
      const shown = isMethod ? type.replace(/^(\(.*\)) => /, "$1: ") : `: ${type}`;
      const says = ts.displayPartsToString(member.getDocumentationComment(checker)).replace(/\s+/g, " ");
      return `- \`${member.name}${shown.replace(/\s+/g, " ")}\`${says === "" ? "" : ` ${says}`}`;
    });
}

/** A function with its parameters; of everything else what kind of thing it is. */
function signature(checker, symbol, name) {
  const [declaration] = symbol.declarations;
  if (ts.isFunctionDeclaration(declaration)) {
    const type = checker.getSignatureFromDeclaration(declaration);
    const flags = ts.TypeFormatFlags.NoTruncation | ts.TypeFormatFlags.UseAliasDefinedOutsideCurrentScope;
    return `${name}${checker.signatureToString(type, undefined, flags)}`.replace(/\s+/g, " ");
  }
  if (ts.isClassDeclaration(declaration)) return `class ${name}`;
  if (ts.isInterfaceDeclaration(declaration)) return `interface ${name}`;
  if (ts.isTypeAliasDeclaration(declaration)) return `type ${name}`;
  return `const ${name}`;
}
