import ts from "typescript";
import { RULE_LANGUAGES } from "uvran/core";
import type { Template, TemplateItem } from "../engine/protocol";
import type { FileParts, HoleParts, RuleParts } from "./protocol";

/** The nodes of a rule file that buttons change. */
export interface RuleFile {
  readonly file: ts.SourceFile;
  readonly holes: readonly HoleNodes[];
  readonly rules: readonly RuleNodes[];
  /** The named imports from `uvran`. */
  readonly imports: ts.NamedImports | undefined;
  readonly trials: readonly TrialsNodes[];
}

/** `const { a, b } = holes({ … })` */
export interface HoleNodes {
  readonly binding: ts.ObjectBindingPattern;
  readonly specs: ts.ObjectLiteralExpression;
  readonly statement: ts.Statement;
}

/** `const { rewrites } = trialsIn("python")` */
export interface TrialsNodes {
  readonly binding: ts.ObjectBindingPattern;
  readonly language: string;
  readonly isPlain: boolean;
}

/** `rule({ … })` */
export interface RuleNodes {
  readonly call: ts.CallExpression;
  readonly spec: ts.ObjectLiteralExpression;
}

export function parsed(text: string): ts.SourceFile {
  return ts.createSourceFile("rule.ts", text, ts.ScriptTarget.ES2022, true);
}

/** Finds what buttons change in a rule file. */
export function ruleFile(text: string): RuleFile {
  const file = parsed(text);
  const holes: HoleNodes[] = [];
  const rules: RuleNodes[] = [];
  const trials: TrialsNodes[] = [];
  let imports: ts.NamedImports | undefined;
  const visit = (node: ts.Node): void => {
    if (
      ts.isImportDeclaration(node) &&
      ts.isStringLiteral(node.moduleSpecifier) &&
      node.moduleSpecifier.text === "uvran" &&
      !node.importClause?.phaseModifier
    ) {
      const bindings = node.importClause?.namedBindings;
      if (bindings && ts.isNamedImports(bindings)) imports ??= bindings;
    }
    if (ts.isVariableDeclaration(node) && node.initializer && ts.isObjectBindingPattern(node.name)) {
      const call = node.initializer;
      if (ts.isCallExpression(call) && ts.isIdentifier(call.expression)) {
        const [first] = call.arguments;
        const statement = node.parent.parent;
        if (call.expression.text === "holes" && first && ts.isObjectLiteralExpression(first))
          holes.push({ binding: node.name, specs: first, statement: statement as ts.Statement });
        if (call.expression.text === "trialsIn" && first && ts.isStringLiteral(first))
          trials.push({ binding: node.name, language: first.text, isPlain: call.arguments.length === 1 });
      }
    }
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && node.expression.text === "rule") {
      const [spec] = node.arguments;
      if (spec && ts.isObjectLiteralExpression(spec)) rules.push({ call: node, spec });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return { file, holes, rules, imports, trials };
}

/** The value of a property of an object literal. */
export function valueOf(spec: ts.ObjectLiteralExpression, name: string): ts.Expression | undefined {
  const property = spec.properties.find(
    (one): one is ts.PropertyAssignment => ts.isPropertyAssignment(one) && nameOf(one.name) === name,
  );
  return property?.initializer;
}

export const nameOf = (name: ts.PropertyName): string | undefined =>
  ts.isIdentifier(name) || ts.isStringLiteral(name) ? name.text : undefined;

/** What a rule file says, as the page shows it. */
export function partsOf(text: string): FileParts {
  const { file, holes, rules } = ruleFile(text);
  const kinds = new Map<string, Omit<HoleParts, "places">>();
  for (const { specs } of holes)
    for (const one of specs.properties) {
      if (!ts.isPropertyAssignment(one)) continue;
      const name = nameOf(one.name);
      const spec = one.initializer;
      if (name === undefined) continue;
      if (ts.isStringLiteral(spec)) kinds.set(name, { name, kind: spec.text, limits: [] });
      else if (ts.isObjectLiteralExpression(spec)) {
        const kind = valueOf(spec, "kind");
        const limits = spec.properties.flatMap((limit) =>
          ts.isPropertyAssignment(limit) && nameOf(limit.name) !== "kind"
            ? [{ name: nameOf(limit.name) ?? "", source: limit.initializer.getText(file) }]
            : [],
        );
        kinds.set(name, { name, kind: kind && ts.isStringLiteral(kind) ? kind.text : "", limits });
      }
    }
  const ofRules = rules.map(({ spec }): RuleParts => {
    const templates = (name: string): Template[] => {
      const value = valueOf(spec, name);
      return value ? templatesIn(value, file, kinds) : [];
    };
    const id = valueOf(spec, "id");
    const given = valueOf(spec, "given");
    const was = templates("was");
    const becomes = templates("becomes");
    const said = id && ts.isStringLiteralLike(id) ? id.text : undefined;
    return {
      id: said,
      start: spec.getStart(file),
      end: spec.end,
      language: was[0]?.language ?? becomes[0]?.language ?? said?.split("/")[0],
      was,
      becomes,
      given:
        given && ts.isArrayLiteralExpression(given) ? given.elements.map((one) => one.getText(file)) : [],
    };
  });
  const all = templatesIn(file, file, kinds);
  return {
    rules: ofRules,
    holes: [...kinds.values()].map((hole) => ({
      ...hole,
      places: all.flatMap(({ items }) =>
        items.flatMap((item) =>
          item.is === "hole" && item.name === hole.name ? [{ start: item.start, end: item.end }] : [],
        ),
      ),
    })),
  };
}

/** The snippets in a piece of a rule file. */
function templatesIn(
  root: ts.Node,
  file: ts.SourceFile,
  kinds: ReadonlyMap<string, Pick<HoleParts, "kind">>,
): Template[] {
  const found: Template[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node)) {
      const template = templateOf(node, file, kinds);
      if (template) found.push(template);
    }
    ts.forEachChild(node, visit);
  };
  visit(root);
  return found;
}

function templateOf(
  { tag, template }: ts.TaggedTemplateExpression,
  file: ts.SourceFile,
  kinds: ReadonlyMap<string, Pick<HoleParts, "kind">>,
): Template | undefined {
  const isContext = ts.isPropertyAccessExpression(tag) && ts.isIdentifier(tag.expression);
  const language = isContext ? (tag.expression as ts.Identifier).text : ts.isIdentifier(tag) ? tag.text : "";
  if (!RULE_LANGUAGES.includes(language)) return undefined;
  const items: TemplateItem[] = [];
  const start = template.getStart(file) + 1;
  const end = template.end - 1;
  const add = (from: number, to: number): void =>
    void items.push({ is: "text", text: file.text.slice(from, to), start: from, end: to });
  if (ts.isNoSubstitutionTemplateLiteral(template)) add(start, end);
  else {
    let from = start;
    for (const { expression } of template.templateSpans) {
      const open = file.text.lastIndexOf("${", expression.getStart(file));
      const close = file.text.indexOf("}", expression.end) + 1;
      add(from, open);
      const known = ts.isIdentifier(expression) ? kinds.get(expression.text) : undefined;
      const range = { start: open, end: close };
      items.push(
        known && ts.isIdentifier(expression)
          ? { is: "hole", name: expression.text, kind: known.kind, ...range }
          : { is: "other", ...range },
      );
      from = close;
    }
    add(from, end);
  }
  return {
    language: language as Template["language"],
    context: isContext ? tag.name.text : undefined,
    start,
    end,
    items,
  };
}

/** A rule of a file by its place. Throws an Error where there is none. */
export function ruleAt({ rules }: RuleFile, index: number): RuleFile["rules"][number] {
  const found = rules[index];
  if (!found) throw new Error("The file has no such rule.");
  return found;
}
