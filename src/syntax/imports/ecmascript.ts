import { modulesOnly, topLevel, type Import, type ImportFacts, type ImportForm } from "../import-facts.js";
import type { ImportStatement, ListedImport } from "../import-facts.js";
import type { SyntaxNode } from "../node.js";

/** ES modules and `require`. */
const MARKUP = ["jsx_element", "jsx_self_closing_element"];

export const ecmascriptImports: ImportFacts = {
  loaders: ["require", "import"],
  ...modulesOnly,
  read: (tree) => topLevel(tree).flatMap((node) => fromStatement(node) ?? fromRequire(node) ?? []),
  everywhere: (tree) =>
    tree
      .ofKinds(["import_statement", "variable_declarator"])
      .flatMap((n) => fromStatement(tree.node(n)) ?? fromDeclarator(tree.node(n)) ?? []),
  write(imports, { quote, end, pad, isOther }) {
    const [first] = imports;
    const module = quote + first!.module + quote;
    const names = imports.filter(({ name }) => name !== undefined && name !== "default" && name !== "*");
    const braced = names.length > 0 ? `{${pad}${names.map(this.item).join(", ")}${pad}}` : undefined;
    const whole = imports.find(({ name }) => name === undefined || name === "default" || name === "*")?.local;
    if (isOther) {
      const what = braced?.replaceAll(" as ", ": ") ?? whole;
      return what === undefined ? `require(${module})${end}` : `const ${what} = require(${module})${end}`;
    }
    const start = first!.form === "type" ? "import type " : "import ";
    const wholeText = whole === undefined || names.length > 0 ? whole : asWhole(first!, whole);
    const what = [wholeText, braced].filter((part) => part !== undefined).join(", ");
    return what === "" ? `import ${module}${end}` : `${start}${what} from ${module}${end}`;
  },
  item: ({ name, local }) => (local === undefined || local === name ? name! : `${name} as ${local}`),
  isHeader: (node) => node.is("hash_bang_line") || isDirective(node),
  // Markup was compiled to calls of `React.createElement` for long, and still may be.
  neededUnnamed: (tree) => (tree.ofKinds(MARKUP).length > 0 ? ["React"] : []),
  usesOther: ({ text }) => /^\s*(module\.exports|exports\.\w+)\s*=/m.test(text) && !/^export /m.test(text),
  member: (local, name) => `${local}.${name}`,
  canRename: true,
  mayGo: () => true,
};

function asWhole({ name }: Import, local: string): string {
  return name === "default" ? local : `* as ${local}`;
}

function isDirective(node: SyntaxNode): boolean {
  return node.is("expression_statement") && node.parts.length === 1 && node.firstPart!.is("string");
}

function unquoted(node: SyntaxNode | undefined): string {
  return node?.text.slice(1, -1) ?? "";
}

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  if (!node.is("import_statement")) return undefined;
  const clause = node.parts.find((part) => part.is("import_require_clause"));
  const source = node.child("source") ?? clause?.child("source");
  if (!source) return undefined;
  const module = unquoted(source);
  const whole = clause?.parts.find((part) => part.is("identifier"));
  if (whole) {
    const imports = [{ module, local: whole.text, node: whole }];
    return { node, module, imports, takesMore: false };
  }
  const form: ImportForm | undefined = node.has("type") ? "type" : undefined;
  const imports: ListedImport[] = [];
  let takesMore = false;
  for (const part of node.parts.find((child) => child.is("import_clause"))?.parts ?? []) {
    if (part.is("identifier")) imports.push({ module, name: "default", local: part.text, form, node: part });
    else if (part.is("namespace_import")) {
      imports.push({ module, local: part.firstPart?.text, form, node: part });
    } else if (part.is("named_imports")) {
      takesMore = part.parts.length > 0;
      for (const item of part.parts) imports.push(fromSpecifier(item, module, form));
    }
  }
  if (imports.length === 0) imports.push({ module, node });
  return { node, module, form, imports, takesMore };
}

function fromSpecifier(item: SyntaxNode, module: string, form: ImportForm | undefined): ListedImport {
  const name = item.child("name")?.text ?? item.text;
  const local = item.child("alias")?.text ?? name;
  return { module, name, local, form: item.has("type") ? "type" : form, node: item };
}

/** `const x = require("m")` or `require("m").x`, alone in its statement, or a `require` for its effect. */
function fromRequire(node: SyntaxNode): ImportStatement | undefined {
  if (node.is("expression_statement")) {
    const module = required(node.firstPart);
    return module === undefined
      ? undefined
      : { node, module, imports: [{ module, node }], takesMore: false, isOther: true };
  }
  if (!node.is(["lexical_declaration", "variable_declaration"]) || node.parts.length !== 1) return undefined;
  const [declarator] = node.parts;
  const value = declarator?.child("value");
  const member = value?.is("member_expression") ? value.child("property") : undefined;
  const module = required(member ? value?.child("object") : value);
  const name = declarator?.child("name");
  if (module === undefined || !name) return undefined;
  if (name.is("identifier")) {
    const own = { module, local: name.text, node: name };
    const imports = [member ? { ...own, name: member.text, member } : own];
    return { node, module, imports, takesMore: false, isOther: true };
  }
  if (member) return undefined;
  const imports = name.parts.map((item) => fromPattern(item, module));
  return { node, module, imports, takesMore: name.is("object_pattern") && imports.length > 0, isOther: true };
}

/** One item of `{ a, b: c }`. */
function fromPattern(item: SyntaxNode, module: string): ListedImport {
  const key = item.child("key")?.text ?? item.text;
  return { module, name: key, local: item.child("value")?.text ?? key, node: item };
}

/** `x = require("m")`, `{ a } = require("m")`, `c = require("m").c`, `x = await import("m")` in any declaration. */
function fromDeclarator(node: SyntaxNode): ImportStatement | undefined {
  if (!node.is("variable_declarator")) return undefined;
  const name = node.child("name");
  let value = node.child("value");
  const member = value?.is("member_expression") ? value.child("property")?.text : undefined;
  if (member !== undefined) value = value?.child("object");
  while (value?.is(["await_expression", "parenthesized_expression"])) value = value.firstPart;
  const module = required(value) ?? imported(value);
  if (module === undefined || !name) return undefined;
  const statement = (imports: readonly ListedImport[]): ImportStatement => ({
    node,
    module,
    imports,
    takesMore: false,
    isOther: true,
  });
  if (name.is("identifier")) {
    const own = { module, local: name.text, node: name };
    return statement([member === undefined ? own : { ...own, name: member }]);
  }
  const isListed = name.is("object_pattern") && member === undefined;
  return isListed ? statement(name.parts.map((item) => fromPattern(item, module))) : undefined;
}

/** The module of `import("m")`. */
function imported(call: SyntaxNode | undefined): string | undefined {
  if (!call?.is("call_expression") || !call.child("function")?.is("import")) return undefined;
  const [given] = call.child("arguments")?.parts ?? [];
  return given?.is("string") ? unquoted(given) : undefined;
}

function required(call: SyntaxNode | undefined): string | undefined {
  if (!call?.is("call_expression") || call.child("function")?.text !== "require") return undefined;
  const given = call.child("arguments")?.parts ?? [];
  return given.length === 1 && given[0]!.is("string") ? unquoted(given[0]) : undefined;
}
