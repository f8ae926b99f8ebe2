import {
  condition,
  copy,
  fresh,
  functionAround,
  holes,
  isUsedAfter,
  isUnchanged,
  no,
  ofKind,
  referencesAt,
  rule,
  shortened,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isArray } from "../arrays.js";
import { reachingByName } from "../by-name.js";
import { isOfPhp } from "../values.js";

const { loop } = holes({ loop: { kind: "statement", node: "while_statement" } });
const unused = fresh("unused");
/** Functions that ask where an array stands, or change that. */
const BY_POSITION = /^\\?(?:each|current|pos|key|next|prev|reset|end)$/i;

interface Walk {
  readonly items: SyntaxNode;
  readonly key: SyntaxNode | undefined;
  readonly value: SyntaxNode | undefined;
  readonly body: SyntaxNode;
}

/** `while (list($key, $value) = each($items))`, taken apart. */
function walkOf(node: SyntaxNode): Walk | undefined {
  const taken = node.child("condition")?.firstPart;
  const [names, call, body] = [taken?.child("left"), taken?.child("right"), node.child("body")];
  if (!taken?.is("assignment_expression") || !names?.is("list_literal") || !body) return undefined;
  const called = call?.is("function_call_expression") ? call.child("function")?.text : undefined;
  const [items, ...more] = call?.child("arguments")?.parts ?? [];
  if (!called || !/^\\?each$/i.test(called) || !items?.is("variable_name") || more.length > 0)
    return undefined;
  const inner = names.text.replace(/^(?:list\s*\(|\[)|[)\]]$/gi, "");
  const [first = "", second = "", ...rest] = inner.split(",").map((one) => one.trim());
  const variable = (name: string): SyntaxNode | undefined =>
    names.parts.find((part) => part.is("variable_name") && part.text === name);
  const [key, value] = [variable(first), variable(second)];
  if (rest.length > 0 || names.parts.length !== Number(!!key) + Number(!!value) || names.parts.length === 0)
    return undefined;
  return { items, key, value, body };
}

const walkIn = (match: Match): Walk => walkOf(match.the(loop))!;

/**
 * The array is walked from its start where it is set back, or written out, right ahead of the loop. One that somebody gives
 * stands where it stood there.
 */
function beginsAtStart(match: Match): Answer {
  const { items } = walkIn(match);
  const code = "flow.written";
  const node = match.the(loop);
  const siblings = node.parent?.parts ?? [];
  const ahead = siblings[siblings.findIndex((one) => one.same(node)) - 1]?.firstPart;
  const isReset =
    ahead?.is("function_call_expression") === true &&
    /^\\?reset$/i.test(ahead.child("function")?.text ?? "") &&
    isOfPhp("reset", match).is === "yes" &&
    ahead.child("arguments")?.parts[0]?.text === items.text;
  const isMade =
    ahead?.is("assignment_expression") === true &&
    ahead.child("left")?.text === items.text &&
    ahead.child("right")?.is("array_creation_expression") === true;
  return isReset || isMade
    ? yes(code, `\`${items.text}\` stands at its start (line ${ahead.line})`, ahead)
    : unknown(code, `\`${items.text}\` may stand behind its start already, where \`each\` went on`, items);
}

/** `each` went through the properties of an object, and `foreach` asks an object that can be walked. */
const isList = (match: Match): Answer =>
  isArray(
    walkIn(match).items,
    (shown) => `\`${shown}\` may be an object, which \`foreach\` walks in another way`,
  );

/** Nothing else asks for the position, and nothing changes the array while it is walked. */
function isWalkedAlone(match: Match): Answer {
  const { items, body } = walkIn(match);
  const around = functionAround(items) ?? items.tree.root;
  const asking = around.mentions(items.text.slice(1)).find((one) => {
    const call = one.closest(["function_call_expression"]);
    const isBehind = one.start > walkIn(match).items.end;
    return isBehind && call !== undefined && BY_POSITION.test(call.child("function")?.text ?? "");
  });
  if (asking) return no("flow.written", `the position of \`${items.text}\` is asked for here too`, asking);
  const odd = reachingByName([body]);
  if (odd)
    return unknown("name.reflection", `\`${shortened(odd.text)}\` reaches variables by their names`, odd);
  return isUnchanged(items, [body]);
}

/** `each` leaves its variables null where the array ends, and `foreach` leaves them as they were. */
function areLeft(match: Match): Answer {
  const node = match.the(loop);
  const code = "resource.used-after";
  for (const name of [walkIn(match).key, walkIn(match).value]) {
    const to = name && referencesAt(name.firstPart!).find(({ member }) => !member)?.to;
    const used = to && isUsedAfter(to, node);
    if (used?.is === "yes") return no(code, used.evidence.says, used.evidence);
    if (used?.is === "unknown") return used;
  }
  return yes(code, "the variables of the loop are not used behind it", node);
}

function walked(match: Match): Segment[] {
  const node = match.the(loop);
  const { items, key, value, body } = walkIn(match);
  const names = key ? `${key.text} => ${value?.text ?? `$${match.named(unused)}`}` : value!.text;
  const head = [text(`foreach (${items.text} as ${names})`), copy(node.child("condition")!.end, body.end)];
  const end = /\bendwhile\b/i.exec(node.tree.text.slice(body.end, node.end));
  if (!end) return head;
  const at = body.end + end.index;
  return [...head, copy(body.end, at), text("endforeach"), copy(at + end[0].length, node.end)];
}

const { rewrites, ignores, holds } = trialsIn("php");
const code = (text: string): string =>
  `<?php\nfunction f(array $jars) {\n    ${text.replaceAll("\n", "\n    ")}\n}\n`;

export const eachCall = rule({
  id: "php/each-call",
  kind: "breaks",
  title: "Walk an array with foreach instead of each",
  why: "PHP 8 has no `each` any more, and code that comes to it fails.",
  was: ofKind(loop, { when: (node) => walkOf(node) !== undefined }),
  mentions: ["each"],
  given: [
    condition("the function is the language's", (match) => isOfPhp("each", match)),
    condition("it is an array", isList),
    condition("the array is walked from its start", beginsAtStart),
    condition("the array is walked by nothing else, and keeps its items", isWalkedAlone),
    condition("the variables are not used afterwards", areLeft),
  ],
  becomes: walked,
  trials: [
    rewrites(
      code("reset($jars);\nwhile (list($id, $jar) = each($jars)) {\n    echo $id, $jar;\n}"),
      code("reset($jars);\nforeach ($jars as $id => $jar) {\n    echo $id, $jar;\n}"),
    ),
    rewrites(
      code("$all = sorted();\nwhile (list(, $jar) = each($all)) echo $jar;"),
      code("$all = sorted();\nforeach ($all as $jar) echo $jar;"),
      "likely",
    ),
    rewrites(
      code("$all = [1, 2];\nwhile (list($id) = each($all)) echo $id;"),
      code("$all = [1, 2];\nforeach ($all as $id => $unused) echo $id;"),
    ),
    rewrites(
      code("while (list($id, $jar) = each($jars)) {\n    echo $id, $jar;\n}"),
      code("foreach ($jars as $id => $jar) {\n    echo $id, $jar;\n}"),
      "likely",
    ),
    rewrites(
      code("reset($jars);\nwhile ([$id, $jar] = each($jars)):\n    echo $id;\nendwhile;"),
      code("reset($jars);\nforeach ($jars as $id => $jar):\n    echo $id;\nendforeach;"),
    ),
    holds(code("reset($jars);\nwhile (list($id, $jar) = each($jars)) { $jars[] = 1; }"), "$jars"),
    holds(
      code("reset($jars);\nwhile (list($id, $jar) = each($jars)) { g(); }\nreturn $jar;"),
      "is read later",
    ),
    holds(
      code("reset($jars);\nwhile (list($id, $jar) = each($jars)) { if (g()) break; }\nreturn key($jars);"),
      "asked for here",
    ),
    holds(code("reset($jars);\nwhile (list($id, $jar) = each($jars)) { next($jars); }"), "asked for here"),
    ignores(code("while ($pair = each($jars)) { g($pair[1]); }")),
    ignores(code("while (list($a, $b) = next($jars)) { g($a); }")),
    ignores(code("while (list($id, list($a)) = each($jars)) { g($a); }")),
    ignores(code("while (list($id, $jar) = each($this->jars)) { g($id); }")),
  ],
});
