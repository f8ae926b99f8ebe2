import { condition, functionAround, no, referencesAt, shortened, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";

const code = "type.not-known";

/** The name of the constant that holds this test, alone or among others; undefined where it stands elsewhere. */
function constantOf(test: SyntaxNode): SyntaxNode | undefined {
  let at = test;
  while (at.parent?.is(["parenthesized_expression", "unary_expression", "binary_expression"])) at = at.parent;
  return at.field === "value" ? nameOfConstant(at.parent) : undefined;
}

/** The name that a declarator gives, of a constant without a type of its own. */
function nameOfConstant(declarator: SyntaxNode | undefined): SyntaxNode | undefined {
  if (!declarator?.is("variable_declarator") || declarator.child("type")) return undefined;
  return declarator.parent?.text.startsWith("const") ? declarator.child("name") : undefined;
}

/** The first use of one of these names in the same function, behind a place. */
function usedBehind(names: readonly string[], place: SyntaxNode, from: number): SyntaxNode | undefined {
  const around = functionAround(place) ?? place.tree.root;
  return names.flatMap((name) => around.mentions(name)).find(({ start }) => start > from);
}

/** The constant that is tested here, where it stands for a test of other names, with these names. */
function standsForTest(subject: SyntaxNode): readonly string[] {
  const to = subject.is("identifier") ? referencesAt(subject).find((one) => one.to)?.to : undefined;
  const declarator = to?.at[0]?.parent;
  const value = nameOfConstant(declarator) && declarator?.child("value");
  if (!value?.is("binary_expression") || !/^(?:&&|\|\|)$/.test(value.child("operator")?.text ?? ""))
    return [];
  return [...value.descendants()].flatMap((one) => (one.is("identifier") ? [one.text] : []));
}

/**
 * TypeScript looks into a constant that holds a test: behind `const isOpen = hive && hive.open()` and `if (isOpen)` it knows that
 * `hive` is there. It does not look into a call behind `?.`, nor through `?.` into the constant.
 */
function isSeenThrough({ node, chain }: Match): Answer {
  const subjects = chain.links.map(({ test }) => test.subject);
  for (const subject of subjects) {
    const used = usedBehind(standsForTest(subject), node, node.start);
    const says = `\`${subject.text}\` stands for a test, which TypeScript would no longer see for \`${used?.text}\``;
    if (used) return no(code, says, used);
  }
  const name = chain.kind === "and" || chain.kind === "or" ? constantOf(node) : undefined;
  if (!name || !node.text.endsWith(")"))
    return yes(code, "no constant stands for a call that is tested", node);
  const roots = subjects.map(({ text }) => text.split(/[^\p{L}\p{N}_$]/u, 1)[0]!);
  const used = usedBehind(roots, name, node.end);
  return used
    ? no(code, `behind \`${name.text}\` TypeScript would no longer know that \`${used.text}\` is there`, used)
    : yes(code, `\`${shortened(subjects[0]!.text)}\` is not used behind \`${name.text}\``, name);
}

/** TypeScript knows what it knew of what is tested. */
export const seenThrough = condition("TypeScript knows what it knew of what is tested", isSeenThrough, {
  when: ({ tree }) => tree.language.id !== "javascript",
});
