import {
  calledFromLibrary,
  callOf,
  condition,
  no,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { containerOf, type Container } from "./containers.js";
import { writtenType } from "./written-type.js";
import { loopHoles, ownOf, type Own } from "../family/each-item.js";
import { declarationFor, isInFunction } from "./pointers.js";
import { iteratorLoop as family } from "../family/iterator-loop.js";

const containerIn = ({ loop: { items } }: Match): Container | undefined => {
  const type = writtenType(items);
  return type && containerOf(type);
};

/** The type of the iterator, as it is written. */
const iteratorType = ({ loop }: Match): string =>
  loop.index.closest(["declaration"])?.child("type")?.text ?? "auto";

/** Are the items read through an iterator that lets nobody change them? */
function isConstant(match: Match): boolean {
  const { loop } = match;
  const isNamed = /(^|::|_)(const_?iterator|const_?iter|citerator)$/i.test(iteratorType(match));
  return isNamed || /\bcbegin\b/.test(loop.made?.child("function")?.lastPart?.text ?? "");
}

/**
 * The name that the body gives an item first. Where the item is read again, what the name stands for must be that item: no copy
 * of it, no part of it, and nothing that can be changed less.
 */
function ownIn(match: Match): Own | undefined {
  const own = ownOf(match);
  if (!own || match.loop.lookUps.length === 1) return own;
  const type = own.statement.child("type")!;
  const isReference = own.name.is("reference_declarator") || own.name.text.startsWith("&");
  const isAll = type.is("placeholder_type_specifier") || containerIn(match)?.types[0] === type.text;
  const isLess = own.statement.parts.some((part) => part.is("type_qualifier")) && !isConstant(match);
  return isReference && isAll && !isLess ? own : undefined;
}

/** How an item is declared: as it was, else as a reference to it. */
function declared(match: Match, own: Own | undefined, name: string): string | undefined {
  if (own) {
    const { statement } = own;
    const value = statement.child("declarator")?.child("value");
    return value && statement.tree.text.slice(statement.start, value.start).replace(/\s*=\s*$/, "");
  }
  if (isConstant(match)) return `const auto& ${name}`;
  return containerIn(match)?.isStandard === true ? `auto& ${name}` : `auto&& ${name}`;
}

/** Is it something that gives items, and no stand-ins for them? */
function isWalked(match: Match): Answer {
  const { items } = match.loop;
  const type = writtenType(items);
  const shown = type?.text ?? iteratorType(match);
  if (/vector<\s*bool\s*>/.test(shown))
    return no("type.is", `\`${items.text}\` gives no items that a reference could name`, type?.at ?? items);
  return type && containerIn(match)?.isStandard === true
    ? yes("type.is", type.why, type.at)
    : unknown(
        "type.not-known",
        `\`${items.text}\` could be something whose iterators give other items than the loop`,
        items,
      );
}

/** A lambda that takes its own copy of an iterator would take one of the item. */
function isInNoLambda({ loop: { lookUps, body } }: Match): Answer {
  const kept = lookUps.find((read) => {
    const lambda = read.closest(["lambda_expression"]);
    return lambda !== undefined && body.some((part) => part.holds(lambda));
  });
  return kept
    ? no("flow.escapes", `\`${kept.text}\` is read in a lambda, which could keep a copy of the item`, kept)
    : yes("flow.escapes", "no lambda reads the item");
}

const LOOKS = /^(size|length|empty|begin|end|cbegin|cend|front|back|at|capacity|count|find|contains)$/;

/** Methods that give what is in a container to another one. */
const EXCHANGES = /^(swap|splice|merge|assign)$/;

/** The loop asks for the end once. */
function isSame(match: Match): Answer {
  const { loop, tree } = match;
  const { items } = loop;
  const { calls, flow } = tree.language;
  const container = containerIn(match);
  // What is reached through a pointer could be another object in the next round.
  const isReached = loop.isPointer === true || items.text.replace(/^this->/, "").includes("->");
  const keepsEnd = container?.is === "nodes" && container.isStandard && !isReached;
  const names = [...items.descendants()].filter((one) => one.isLeaf && one.named).map(({ text }) => text);
  let doubt: Answer | undefined;
  for (const node of loop.body.flatMap((part) => [...part.descendants()])) {
    const target = flow.assignments[node.kind] ? (node.child("left") ?? node.child("argument")) : undefined;
    const call = node.is(calls) ? callOf(node) : undefined;
    const isOwn = call?.receiver?.text === items.text;
    const isChanged = isOwn && (keepsEnd ? EXCHANGES.test(call!.method) : !LOOKS.test(call!.method));
    if (isChanged || target?.text === items.text || (target && names.includes(target.text)))
      return no("flow.written", `\`${shortened(node.text)}\` changes \`${items.text}\``, node);
    const effect = call && !isOwn ? (calledFromLibrary(node)?.effect ?? "changes") : "none";
    if (effect === "changes" || (target && !isPlainTarget(target, match)))
      doubt ??= unknown("flow.written", `\`${shortened(node.text)}\` could change \`${items.text}\``, node);
  }
  if (keepsEnd)
    return yes("flow.written", `\`${items.text}\` has the same end whatever becomes of its items`, items);
  return doubt ?? yes("flow.written", `nothing in the loop can change \`${items.text}\``, items);
}

/** Is what is written a variable of the function, the item, or a part of one of them that no pointer leads to? */
function isPlainTarget(target: SyntaxNode, { loop }: Match): boolean {
  let at = target;
  for (;;) {
    if (loop.lookUps.some((read) => read.same(at))) return true;
    const isPart = at.is("field_expression") && !at.has("->");
    if (!isPart && !at.is("parenthesized_expression")) break;
    at = at.firstPart!;
  }
  if (!at.is("identifier")) return false;
  if (loop.own && at.text === loop.own.name.text.replace(/^\W+/, "")) return true;
  const declared = declarationFor(at);
  return declared !== undefined && !declared.isPointer && isInFunction(declared.at);
}

/** What is walked is asked for once, and not in each round. */
function isPlain({ loop }: Match): boolean {
  return (
    /^(?:this(?:\.|->))?[A-Za-z_]\w*(?:(?:\.|->)\w+)*$/.test(loop.items.text) && loop.items.text !== "this"
  );
}

const { rewrites, ignores, holds } = trialsIn("cpp", "11");
const inFunction = (code: string, more = ""): string =>
  `${more}void f(std::vector<Hive>& hives, const std::vector<int>& ns, std::map<int, Hive>& by) {\n  ${code}\n}\n`;

const walking = family({
  ...loopHoles(),
  own: ownIn,
  declared,
  header: (declaredItem, { loop }) =>
    `for (${declaredItem} : ${loop.isPointer ? "*" : ""}${loop.items.text})`,
  given: [
    condition("what is walked gives its items", isWalked),
    condition("what is walked stays the same", isSame),
    condition("no lambda reads the item", isInNoLambda),
  ],
});

export const iteratorLoop = rule({
  id: "cpp/iterator-loop",
  kind: "idiom",
  title: "Use a range-based for instead of an iterator",
  why: "Type, start, end and step of an iterator hide that a loop simply walks all items.",
  target: "11",
  ...walking,
  where: [isPlain, ...walking.where!],
  trials: [
    rewrites(
      inFunction(
        "int sum = 0;\n  for (std::vector<int>::const_iterator it = ns.begin(); it != ns.end(); ++it) {\n    sum += *it;\n  }",
      ),
      inFunction("int sum = 0;\n  for (const auto& item : ns) {\n    sum += item;\n  }"),
    ),
    rewrites(
      inFunction(
        "for (std::map<int, Hive>::iterator it = by.begin(), end = by.end(); it != end; it++) {\n    it->second.kg += it->first;\n    (*it).second.weigh();\n  }",
      ),
      inFunction("for (auto& item : by) {\n    item.second.kg += item.first;\n    item.second.weigh();\n  }"),
    ),
    rewrites(
      inFunction(
        "for (auto it = hives.begin(); hives.end() != it; ++it) {\n    Hive& hive = *it;\n    hive.kg = it->tare;\n  }",
      ),
      inFunction("for (Hive& hive : hives) {\n    hive.kg = hive.tare;\n  }"),
    ),
    // A member of the item is not the item.
    rewrites(
      inFunction(
        "for (auto it = by.begin(); it != by.end(); ++it) {\n    Hive hive = it->second;\n    (*it)[0] = hive.kg;\n  }",
      ),
      inFunction("for (auto& item : by) {\n    Hive hive = item.second;\n    item[0] = hive.kg;\n  }"),
    ),
    // What the name stands for could be changed less, or is a part of the item.
    rewrites(
      inFunction(
        "for (auto it = hives.begin(); it != hives.end(); ++it) {\n    const Hive& hive = *it;\n    it->kg = hive.tare;\n  }",
      ),
      inFunction("for (auto& item : hives) {\n    const Hive& hive = item;\n    item.kg = hive.tare;\n  }"),
    ),
    // A class of the project that has a container's name.
    rewrites(
      "template <class T> class list { T* begin(); T* end(); };\nvoid f(list<std::string>& ns) {\n  for (auto it = ns.begin(); it != ns.end(); ++it) use(*it);\n}\n",
      "template <class T> class list { T* begin(); T* end(); };\nvoid f(list<std::string>& ns) {\n  for (auto&& item : ns) use(item);\n}\n",
      "likely",
    ),
    holds(
      "void f(std::list<int>& ns) {\n  for (auto it = ns.begin(); it != ns.end(); ++it) ns.swap(others);\n  for (auto it = ns.begin(); it != ns.end(); ++it) { use(*it); ns.swap(others); }\n}\n",
      "changes `ns`",
    ),
    // A copy is not the item where both are named.
    rewrites(
      inFunction(
        "for (auto it = hives.begin(); it != hives.end(); ++it) {\n    Hive hive = *it;\n    hive.kg = it->tare;\n  }",
      ),
      inFunction("for (auto& item : hives) {\n    Hive hive = item;\n    hive.kg = item.tare;\n  }"),
    ),
    rewrites(
      inFunction("auto it = ns.cbegin();\n  while (it != ns.cend()) {\n    use(*it);\n    ++it;\n  }"),
      inFunction("for (const auto& item : ns) {\n    use(item);\n  }"),
      "likely",
    ),
    rewrites(
      "void f(Apiary* apiary) {\n  for (auto it = apiary->begin(); it != apiary->end(); ++it) it->weigh();\n}\n",
      "void f(Apiary* apiary) {\n  for (auto&& item : *apiary) item.weigh();\n}\n",
      "likely",
    ),
    // An item may come or go while a list is walked to its end, which is not so for a vector.
    rewrites(
      "void f(std::list<int>& ns) {\n  for (auto it = ns.begin(); it != ns.end(); ++it) more(ns, *it);\n}\n",
      "void f(std::list<int>& ns) {\n  for (auto& item : ns) more(ns, item);\n}\n",
    ),
    rewrites(
      inFunction("for (auto it = hives.begin(); it != hives.end(); ++it) swarm(hives, *it);"),
      inFunction("for (auto& hive : hives) swarm(hives, hive);"),
      "likely",
    ),
    holds(
      inFunction("for (auto it = hives.begin(); it != hives.end(); ++it) hives.push_back(*it);"),
      "changes `hives`",
    ),
    holds(
      "void f(std::vector<bool>& ts) {\n  for (auto it = ts.begin(); it != ts.end(); ++it) use(*it);\n}\n",
      "no items that a reference could name",
    ),
    holds(
      inFunction(
        "std::vector<Hive>::iterator it;\n  for (it = hives.begin(); it != hives.end(); ++it) if (it->full()) break;\n  use(it);",
      ),
      "ahead of the loop",
    ),
    holds(
      inFunction("for (auto it = hives.begin(); it != hives.end(); ++it) later([&] { use(*it); });"),
      "is read in a lambda",
    ),
    // The end of another object is asked for in the next round.
    holds(
      "void f(Shelf* shelf) {\n  for (auto it = shelf->jars.begin(); it != shelf->jars.end(); ++it) { use(*it); shelf = other; }\n}\n",
      "changes `shelf->jars`",
    ),
    rewrites(
      "void f(Shelf* shelf) {\n  for (std::list<Jar>::iterator it = shelf->jars.begin(); it != shelf->jars.end(); ++it) use(*it);\n}\n",
      "void f(Shelf* shelf) {\n  for (auto&& jar : shelf->jars) use(jar);\n}\n",
      "likely",
    ),
    ignores(
      inFunction(
        "for (auto it = by.begin(); it != by.end();) { if (it->second.dead()) it = by.erase(it); else ++it; }",
      ),
    ),
    ignores(
      inFunction(
        "for (auto it = by.begin(); it != by.end(); ++it) { if (it != by.begin()) comma(); use(*it); }",
      ),
    ),
    ignores(inFunction("for (auto it = hives.begin(); it != others.end(); ++it) use(*it);")),
    ignores(inFunction("for (auto it = all().begin(); it != all().end(); ++it) use(*it);")),
    ignores(inFunction("for (auto it = hives.begin() + 1; it != hives.end(); ++it) use(*it);")),
    ignores(inFunction("for (auto it = hives.rbegin(); it != hives.rend(); ++it) use(*it);")),
    trialsIn("cpp", "98").ignores(
      inFunction("for (std::vector<int>::const_iterator it = ns.begin(); it != ns.end(); ++it) use(*it);"),
    ),
  ],
});
