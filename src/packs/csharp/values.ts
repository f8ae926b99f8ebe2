import {
  annotationOf,
  isSideEffectFree,
  referencesAt,
  no,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../index.js";
import type { Answer, Match, SyntaxNode } from "../../index.js";
import type { SafeStep } from "../family/guarded.js";

/** Types of the standard library and of the language that are compared with null as what they are. */
const PLAIN =
  /^(bool|byte|sbyte|short|ushort|int|uint|long|ulong|float|double|decimal|char|DateTime|TimeSpan|Guid|string|object|dynamic|String|Object|Array|Type|Exception|Delegate|Action|Func|Predicate|EventHandler|PropertyChangedEventHandler|Nullable|List|Dictionary|HashSet|SortedDictionary|Queue|Stack|StringBuilder|Stream|FileStream|MemoryStream|TextReader|TextWriter|StreamReader|StreamWriter|Regex|Match|Task|Thread|Timer|Random|XmlNode|XmlElement|XmlDocument|XElement|Encoding|CultureInfo|MethodInfo|PropertyInfo|FieldInfo|Attribute)$/;

/** An interface by its name, which has no operators of its own. */
const INTERFACE = /^I[A-Z]\w+$/;

/**
 * Does `== null` ask for nothing but null? A class may say otherwise with an operator of its own, which `?.` and `??`
 * never ask.
 */
export function comparesPlainly(node: SyntaxNode, { around, tree }: Match): Answer {
  const name = shortened(node.text);
  const type = typeOf(node);
  const annotation = type ? undefined : annotationOfPath(node);
  if (annotation?.is("array_type")) return yes(`\`${name}\` is declared \`${annotation.text}\``, annotation);
  if (!type) return unknown(`\`${name}\` could be of a type that has its own \`==\``, node);
  const { text } = type.at;
  const bare = /^(?:[\w.]+\.)?(\w+)/.exec(type.name)?.[1] ?? type.name;
  if (/\[\]\s*\??$/.test(text) || type.name.endsWith("?") || PLAIN.test(bare) || INTERFACE.test(bare))
    return yes(type.why, type.at);
  const hasOperator = new RegExp(`operator\\s*==\\s*\\(\\s*${bare}\\b`);
  const hasBase = new RegExp(`\\b(?:class|struct)\\s+${bare}\\b[^{]*?:\\s*(?!I[A-Z])[A-Z]`);
  const declares = new RegExp(`\\b(class|delegate\\s+\\S+|enum)\\s+${bare}\\b`);
  let isDeclared = false;
  for (const text of [tree.text, ...[...(around.files?.naming(bare) ?? [])].map((file) => file.text)]) {
    if (hasOperator.test(text)) return no(`\`${bare}\` has an operator \`==\` of its own`, type.at);
    if (hasBase.test(text)) return unknown(`a base of \`${bare}\` could have its own \`==\``, type.at);
    isDeclared ||= declares.test(text);
  }
  return isDeclared
    ? yes(`${type.why}, which has no \`==\` of its own`, type.at)
    : unknown(`\`${bare}\` could have an operator \`==\` of its own`, type.at);
}

/** The annotation of the variable or member that an expression names. */
function annotationOfPath(node: SyntaxNode): SyntaxNode | undefined {
  const leaf = [...node.descendants()].findLast((one) => one.is("identifier"));
  const to = leaf && referencesAt(leaf).find((reference) => reference.to)?.to;
  return to?.at.map((at) => annotationOf(at)).find((found) => found !== undefined);
}

/** Code in an expression tree may not use `?.`, and nothing tells such a lambda from another. */
export function mayBeExpressionTree(node: SyntaxNode): Answer {
  const lambda = [...node.ancestors()].find((above) => above.is("lambda_expression"));
  if (!lambda || lambda.child("body")?.is("block")) return yes("it stands in no expression tree");
  return unknown("an expression tree may not use this form", lambda);
}

/** Reading once instead of twice: of a field or property of an object, the second reading could differ. */
export function readOnce(node: SyntaxNode): Answer {
  return isSideEffectFree(node);
}

/** Members, items and calls of delegates. */
export const SAFE: SafeStep = {
  tokens: { ".": "?." },
  beforeBracket: (step) =>
    step.is("element_access_expression") ? "?" : step.is("invocation_expression") ? "?.Invoke" : undefined,
};

/** Is this a name, `this.name`, or members of one? Then testing and using it speak of the same thing. */
export function isPath(node: SyntaxNode): boolean {
  if (node.is(["identifier", "this", "base", "this_expression"])) return true;
  if (!node.is("member_access_expression")) return false;
  const base = node.child("expression");
  return base !== undefined && isPath(base);
}
