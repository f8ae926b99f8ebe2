import { textAt } from "../../../core.js";
import type { Edit, SyntaxNode } from "../../../core.js";
import type { Settings } from "./call-settings.js";
import type { Made } from "./made-class.js";
import { memberName, methodText, noMethod, ownNodes } from "./method.js";

/** Values that are the same however often they are written down. */
export const PLAIN = ["string", "number", "true", "false", "null", "unary_expression", "template_string"];

/** What becomes of a property of the object; or why nothing can. */
export type Member = { readonly code: string } | { readonly at: SyntaxNode; readonly why: string };

function memberFrom(part: SyntaxNode, made: Made, set: Settings, indent: string): Member {
  const { tree } = part;
  if (part.is("method_definition")) return method(memberName(part.child("name")!), part, made, set, indent);
  if (part.is("spread_element")) return { at: part, why: "what is mixed in is not listed here" };
  if (!part.is("pair")) return { at: part, why: `\`${part.text}\` is no method that is written here` };
  const [key, value] = [part.child("key")!, part.child("value")!];
  const name = memberName(key);
  if (value.is(["function_expression", "generator_function", "arrow_function"])) {
    const why = noMethod(value);
    return why === undefined ? method(name, value, made, set, indent) : { at: value, why };
  }
  if (!value.is(PLAIN) || (value.is("template_string") && value.text.includes("${")))
    return { at: part, why: `\`${part.text.split("\n")[0]}\` is one value for all objects of the class` };
  const code = textAt(tree, value, indent);
  return { code: set.values === "field" ? `${name} = ${code};` : `get ${name}() { return ${code}; }` };
}

function method(name: string, fn: SyntaxNode, made: Made, set: Settings, indent: string): Member {
  const isConstructor = set.starts !== "" && name === set.starts;
  const { tree } = fn;
  const edits: Edit[] = [];
  let isSuperCalled = false;
  for (const node of ownNodes(fn)) {
    if (node.is("this") && isConstructor && !isSuperCalled && made.base && !isSuperAround(node, set))
      return { at: node, why: "the object is used before the parent's constructor is called" };
    const callee = node.is("call_expression") ? node.child("function") : undefined;
    const code = callee?.text.replace(/\s/g, "");
    if (!callee || (code !== set.supers && code !== `${set.supers}.apply` && code !== `${set.supers}.call`))
      continue;
    isSuperCalled = true;
    const [self, ...rest] = node.child("arguments")!.parts;
    const isApplied = code !== set.supers;
    if (isApplied && (self?.text !== "this" || (code.endsWith(".apply") && rest.length !== 1)))
      return { at: node, why: "the parent's method is called for another object" };
    edits.push({ start: callee.start, end: callee.end, text: isConstructor ? "super" : `super.${name}` });
    if (isApplied)
      edits.push({
        start: self!.start,
        end: rest[0]?.start ?? self!.end,
        text: code.endsWith(".apply") ? "..." : "",
      });
  }
  const inside = fn.text.split(set.supers).length - 1;
  if (inside > edits.filter(({ text: put }) => put.startsWith("super")).length)
    return { at: fn, why: `\`${set.supers}\` is used in another way than being called` };
  if (isConstructor && made.base && !isSuperCalled)
    return { at: fn, why: `\`${name}\` does not call that of the parent` };
  if (!isConstructor && isSuperCalled && !made.base) return { at: fn, why: "there is no parent" };
  if (isConstructor && (fn.has("async") || fn.is("generator_function")))
    return { at: fn, why: "a constructor cannot wait" };
  const is = isConstructor ? "constructor" : name;
  if (!fn.is("method_definition")) return { code: methodText(is, fn, indent, edits) };
  const start = fn.child("name")!;
  if (isConstructor) edits.push({ start: start.start, end: start.end, text: is });
  return {
    code: textAt(
      tree,
      fn,
      indent,
      edits.sort((a, b) => a.start - b.start),
    ),
  };
}

/** Is this the object in the call of the parent's method? */
function isSuperAround(node: SyntaxNode, { supers }: Settings): boolean {
  for (const above of node.ancestors()) {
    if (above.is("call_expression") && above.child("function")!.text.startsWith(supers)) return true;
    if (above.is("statement_block")) return false;
  }
  return false;
}

export const membersOf = (made: Made, set: Settings, indent = ""): Member[] =>
  made.object.parts.map((part) => memberFrom(part, made, set, indent));
