import { escaped, oncePerKey, type SyntaxNode, type SyntaxTree } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { nameInFile, referencesAt } from "./declarations.js";
import { isDefinedInProject } from "./functions.js";
import { shortened } from "../shown.js";
import { useOf } from "./use.js";

/** Places below `within` where a variable of this name is written or declared, shadowing ones included. */
export function writesOf(name: string, within: SyntaxNode): SyntaxNode[] {
  return within.mentions(name).filter((mention) => doneBy(mention) === "write");
}

/** Places below `within` where a variable of this name is read. */
export function readsOf(name: string, within: SyntaxNode): SyntaxNode[] {
  return within.mentions(name).filter((mention) => doneBy(mention) === "read");
}

/** What a name does to a variable; undefined where it names something else. */
function doneBy(mention: SyntaxNode): "read" | "write" | undefined {
  const use = useOf(mention);
  if (typeof use === "string" || use.memberOf !== undefined) return undefined;
  return use.does === "read" && !use.declares ? "read" : "write";
}

/**
 * Does this name mean what the language itself defines, in this file? Unknown where an import may bring in
 * another, or where the file can replace it while running: by its name in a string, as stand-ins in tests are
 * put in place, or as an attribute that is set.
 */
export function isBuiltin(name: string, at: SyntaxNode): Answer {
  const answer = inTree(name, at.tree);
  return answer.is === "unknown" ? (replacedAround(name, at) ?? answer) : answer;
}

/** No, where a function around names it in a string, as one does that puts something else in its place for a while. */
function replacedAround(name: string, at: SyntaxNode): Answer | undefined {
  const { functions, strings } = at.tree.language;
  const around = [...at.ancestors()].findLast((above) => above.is(functions));
  const whole = around?.parent?.is("decorated_definition") ? around.parent : around;
  const named = [...(whole?.descendants() ?? [])].find(
    (node) => node.is(strings) && namedIn(name).test(node.text),
  );
  return (
    named &&
    no("name.reflection", `\`${name}\` is replaced through its name in \`${shortened(named.text)}\``, named)
  );
}

/** A string that ends in a name: `"open"`, `"yard.open"`. */
function namedIn(name: string): RegExp {
  return new RegExp(`(^|[^\\p{L}\\p{N}_])${escaped(name)}["'\`]$`, "u");
}

const inTree = oncePerKey(meansBuiltin);

function meansBuiltin(name: string, tree: SyntaxTree): Answer {
  const { root, language } = tree;
  const written =
    writesOf(name, root)[0] ??
    // Where case does not count, or a function is no variable, the name is declared in another way.
    nameInFile(language.ignoresCase === "keywords" ? name.toLowerCase() : name, tree).declarations.find(
      ({ as }) => as === "function" || as === "import" || as === "method",
    )?.at[0];
  if (written) return no("name.library", `\`${name}\` is given another meaning in this file`, written);
  const inString = namedIn(name);
  for (const n of tree.ofKinds([...language.wildcardImports, ...language.strings, ...language.memberReads])) {
    const node = tree.node(n);
    if (node.is(language.wildcardImports)) {
      return unknown("name.not-resolved", `\`${node.parent?.text}\` may bring in another \`${name}\``, node);
    }
    if (node.is(language.strings) && inString.test(node.text)) {
      return unknown(
        "name.reflection",
        `\`${name}\` may be replaced through its name in \`${shortened(node.text)}\``,
        node,
      );
    }
    if (node.is(language.memberReads) && node.text.endsWith(`.${name}`)) {
      if (node.parent?.child("left")?.same(node))
        return unknown("name.library", `\`${shortened(node.text)}\` is replaced here`, node);
    }
  }
  return isDefinedInProject(name, tree) ?? yes("name.library", `\`${name}\` is the built-in one`);
}

/** The place that declares the variable a name refers to, when exactly one can be meant. */
export function declarationOf(name: SyntaxNode): SyntaxNode | undefined {
  const to = referencesAt(name).find((reference) => !reference.member)?.to;
  return to?.at.length === 1 ? to.at[0] : undefined;
}
