import {
  callOf,
  condition,
  isOfTrait,
  no,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isSame, loopHoles, ownOf, type Own } from "../../family/each-item.js";
import { iteratorLoop as family } from "../../family/iterator-loop.js";
import { declaredType, typeArguments } from "../types.js";

const HOLES = loopHoles();

/** What a loop without an iterator walks. */
interface Walked {
  /** The collection or the map, whose own methods give the items. */
  readonly owner: SyntaxNode;
  readonly trait: "collection" | "map";
  readonly methods: readonly string[];
  /** What the loop's header says. */
  readonly code: string;
  /** The type of the items, by the types that the owner is declared with. */
  readonly itemOf: (types: readonly string[]) => string | undefined;
}

const KEY = (types: readonly string[]): string | undefined => types[0];
const VALUE = (types: readonly string[]): string | undefined => types[1];

/** Methods of a map that give what can be walked. */
const OF_MAPS: Readonly<Record<string, Walked["itemOf"]>> = {
  keySet: KEY,
  values: VALUE,
  entrySet: ([key, value]) => (value === undefined ? undefined : `Map.Entry<${key}, ${value}>`),
};

/** What the loop would walk; undefined where nothing is known that gives the same items. */
function walkedIn({ loop: { items, made } }: Match): Walked | undefined {
  const how = callOf(made!)!.method;
  const call = items.is("method_invocation") ? callOf(items) : undefined;
  const itemOfMap = how === "iterator" && call?.receiver ? OF_MAPS[call.method] : undefined;
  if (itemOfMap) {
    const isNamed = call!.method !== "entrySet" || /^import java\.util\.(\*|Map);/m.test(items.tree.text);
    const itemOf = isNamed ? itemOfMap : () => undefined;
    return { owner: call!.receiver!, trait: "map", methods: [call!.method], code: items.text, itemOf };
  }
  const code = items.text;
  if (how === "iterator") return { owner: items, trait: "collection", methods: [how], code, itemOf: KEY };
  const name = typeOf(items)?.name;
  if (name === "Hashtable") {
    const [view, itemOf] = how === "keys" ? (["keySet", KEY] as const) : (["values", VALUE] as const);
    return { owner: items, trait: "map", methods: [how, view], code: `${code}.${view}()`, itemOf };
  }
  const isList = how === "elements" && (name === "Vector" || name === "Stack");
  return isList
    ? { owner: items, trait: "collection", methods: [how, "iterator"], code, itemOf: KEY }
    : undefined;
}

/** The type of the items of what is walked, by its own declaration; undefined where nobody says it. */
function itemsOf(match: Match): string | undefined {
  const walked = walkedIn(match);
  const types = walked ? typeArguments(walked.owner) : [];
  const isPlain =
    types.every((one) => !one.startsWith("?")) && types.length === (walked?.trait === "map" ? 2 : 1);
  return isPlain ? walked!.itemOf(types) : undefined;
}

/** The type of an item as the iterator gives it; undefined where the iterator says none itself. */
function itemOfIterator({ loop }: Match): string | undefined {
  const type = loop.index.closest(["local_variable_declaration"])?.child("type");
  if (!type || type.text === "var") return undefined;
  const [only] = type.parts.find((part) => part.is("type_arguments"))?.parts ?? [];
  if (!only) return "Object";
  if (!only.is("wildcard")) return only.text;
  return /^\?\s*extends\s+(.+)$/s.exec(only.text)?.[1] ?? "Object";
}

/** Is the item turned into another type where it is taken, so that it does not matter which one it has? */
const isCast = ({ loop }: Match): boolean => loop.lookUps.every((read) => read.parent?.is("cast_expression"));

/** The type of an item, by which methods with several signatures are told apart. */
const itemType = (match: Match): string | undefined => {
  const ofItems = itemsOf(match);
  return (isCast(match) ? ofItems : undefined) ?? itemOfIterator(match) ?? ofItems;
};

/** `Jar jar = it.next();`, and `Jar jar = (Jar) it.next();` where the items are jars. */
function ownIn(match: Match): Own | undefined {
  const own = ownOf(match);
  if (own) return own;
  const { body, lookUps } = match.loop;
  const [statement] = body;
  const [declarator, ...more] = statement?.parts.filter((part) => part.is("variable_declarator")) ?? [];
  const cast = declarator?.child("value");
  const name = declarator?.child("name");
  if (!statement?.is("local_variable_declaration") || !name || !cast?.is("cast_expression")) return undefined;
  const isItem = lookUps.some((read) => read.same(cast.child("value")));
  const isSame =
    cast.child("type")?.text === itemType(match) && statement.child("type")?.text === itemType(match);
  return isItem && isSame && more.length === 0 ? { name, statement } : undefined;
}

function declared(match: Match, own: Own | undefined, name: string): string | undefined {
  const type = itemIn(match);
  const isFinal = own !== undefined && /^final\b/.test(own.statement.text);
  return type === undefined ? undefined : `${isFinal ? "final " : ""}${type} ${name}`;
}

/** Can a loop walk it, and does it hold items of the type that the loop asks for? */
function isWalked(match: Match): Answer {
  const { items } = match.loop;
  const shown = shortened(items.text);
  const { owner, trait, methods } = walkedIn(match)!;
  const is = isOfTrait(owner, trait, { what: trait, methods });
  if (is.is !== "yes") return is;
  const type = declaredType(owner);
  if (type && !type.is("generic_type") && itemIn(match) !== "Object")
    return no(
      "type.same",
      `\`${shown}\` is declared \`${type.text}\`, of which the items are \`Object\``,
      type,
    );
  return type || typeOf(owner)
    ? is
    : unknown("type.not-known", `the type of the items of \`${shown}\` is not known`, items);
}

/** The type of an item as the loop will say it. */
const itemIn = (match: Match): string | undefined => {
  const written = ownIn(match)?.statement.child("type")?.text;
  return written === undefined || written === "var" ? itemType(match) : written;
};

/** What runs ahead of taking the item runs behind it now. */
function isTakenFirst({ loop }: Match): Answer {
  const [read] = loop.lookUps;
  const calls = [...loop.body[0]!.descendants()].filter(
    (node) => node.is(["method_invocation", "object_creation_expression"]) && node.end <= read!.start,
  );
  const [before] = calls;
  return before
    ? unknown("flow.order", `\`${shortened(before.text)}\` runs before the item is taken`, before)
    : yes("flow.order", "nothing runs in a round before the item is taken");
}

/** An iterator notices when items come or go behind its back, as the loop does; an enumeration goes on with what is there. */
function staysTheSame(match: Match): Answer {
  return callOf(match.loop.made!)!.method === "iterator"
    ? yes("flow.written", "the loop uses the same iterator")
    : isSame(match, {
        items: HOLES.items,
        looks: ["get", "size", "isEmpty", "contains", "containsKey", "indexOf"],
      });
}

const { rewrites, ignores, holds } = trialsIn("java", "5");
const inMethod = (code: string, head = "List<Hive> hives, Map<String, Hive> byName, List all"): string =>
  `import java.util.*;\n\nclass A {\n    void f(${head}) {\n        ${code}\n    }\n}\n`;

const loop = family({
  ...HOLES,
  own: ownIn,
  declared,
  header: (item, match) => `for (${item} : ${walkedIn(match)!.code})`,
  given: [
    condition("what is walked has items of this type", isWalked, { unknownIs: "possible" }),
    condition("nothing runs before the item is taken", isTakenFirst),
    condition("what is walked stays the same", staysTheSame),
  ],
});

export const iteratorLoop = rule({
  id: "java/iterator-loop",
  kind: "idiom",
  title: "Use an enhanced for loop instead of an iterator",
  why: "An iterator that is only asked for the next item hides what the loop is about.",
  target: "5",
  ...loop,
  where: [(match) => match.loop.items.text !== "super" && walkedIn(match) !== undefined, ...loop.where!],
  trials: [
    rewrites(
      inMethod(
        "for (Iterator<Hive> it = hives.iterator(); it.hasNext();) {\n            Hive hive = it.next();\n            hive.weigh();\n        }",
      ),
      inMethod("for (Hive hive : hives) {\n            hive.weigh();\n        }"),
    ),
    rewrites(
      inMethod(
        "Iterator<Map.Entry<String, Hive>> it = byName.entrySet().iterator();\n        while (it.hasNext()) {\n            Map.Entry<String, Hive> entry = it.next();\n            use(entry.getKey(), entry.getValue());\n        }",
      ),
      inMethod(
        "for (Map.Entry<String, Hive> entry : byName.entrySet()) {\n            use(entry.getKey(), entry.getValue());\n        }",
      ),
    ),
    rewrites(
      inMethod(
        "Iterator<String> names = byName.keySet().iterator();\n        while (names.hasNext()) use(names.next());",
      ),
      inMethod("for (String key : byName.keySet()) use(key);"),
    ),
    // Which method is called depends on the type that the iterator gives.
    rewrites(
      inMethod("for (Iterator it = hives.iterator(); it.hasNext();) use(it.next());"),
      inMethod("for (Object hive : hives) use(hive);"),
    ),
    rewrites(
      inMethod("for (Iterator<? extends Box> it = hives.iterator(); it.hasNext();) use(it.next());"),
      inMethod("for (Box hive : hives) use(hive);"),
    ),
    // An enumeration goes on with what is there, where the loop would fail.
    rewrites(
      inMethod(
        "for (Enumeration<Hive> e = old.elements(); e.hasMoreElements();) {\n            Hive hive = e.nextElement();\n            sum += hive.age;\n        }",
        "Vector<Hive> old, int sum",
      ),
      inMethod(
        "for (Hive hive : old) {\n            sum += hive.age;\n        }",
        "Vector<Hive> old, int sum",
      ),
    ),
    rewrites(
      inMethod(
        "Enumeration<String> e = old.keys();\n        while (e.hasMoreElements()) use(e.nextElement());",
        "Hashtable<String, Hive> old",
      ),
      inMethod("for (String item : old.keySet()) use(item);", "Hashtable<String, Hive> old"),
      "likely",
    ),
    holds(
      inMethod(
        "Enumeration<Hive> e = old.elements();\n        while (e.hasMoreElements()) old.add(e.nextElement());",
        "Vector<Hive> old",
      ),
      "could change what is walked",
    ),
    ignores(
      inMethod(
        "Enumeration<Hive> e = shelf.elements();\n        while (e.hasMoreElements()) use(e.nextElement());",
        "Shelf shelf",
      ),
    ),
    // Without types the items are objects.
    rewrites(
      inMethod(
        "for (Iterator i = all.iterator(); i.hasNext(); ) {\n            Hive hive = (Hive) i.next();\n            hive.weigh();\n        }",
      ),
      inMethod(
        "for (Object item : all) {\n            Hive hive = (Hive) item;\n            hive.weigh();\n        }",
      ),
    ),
    rewrites(
      inMethod(
        "for (Iterator i = hives.iterator(); i.hasNext(); ) {\n            Hive hive = (Hive) i.next();\n            hive.weigh();\n        }",
      ),
      inMethod("for (Hive hive : hives) {\n            hive.weigh();\n        }"),
    ),
    rewrites(
      inMethod("for (Iterator<Hive> it = hives.iterator(); it.hasNext();) if (it.next().isFull()) return;"),
      inMethod("for (Hive hive : hives) if (hive.isFull()) return;"),
    ),
    rewrites(
      inMethod("for (Iterator<Hive> it = hives.iterator(); it.hasNext();) use(log(), it.next());"),
      inMethod("for (Hive hive : hives) use(log(), hive);"),
      "likely",
    ),
    rewrites(
      inMethod(
        "Iterator<Hive> it = market.hives().iterator();\n        while (it.hasNext()) it.next().weigh();",
      ),
      inMethod("for (Hive hive : market.hives()) hive.weigh();"),
      "possible",
    ),
    holds(
      inMethod(
        "Iterator<Hive> it = all.iterator();\n        while (it.hasNext()) {\n            Hive hive = it.next();\n            hive.weigh();\n        }",
      ),
      "of which the items are `Object`",
    ),
    // What stands between stays there.
    rewrites(
      inMethod(
        "Iterator<Hive> it = hives.iterator();\n        Hive last = null;\n        while (it.hasNext()) {\n            last = it.next();\n            last.weigh();\n        }",
      ),
      inMethod(
        "Hive last = null;\n        for (Hive hive : hives) {\n            last = hive;\n            last.weigh();\n        }",
      ),
    ),
    rewrites(
      inMethod(
        "Iterator<Hive> it = hives.iterator();\n        begin();\n        while (it.hasNext()) it.next().weigh();",
      ),
      inMethod("begin();\n        for (Hive hive : hives) hive.weigh();"),
      "likely",
    ),
    holds(
      inMethod(
        "Iterator<Hive> it = hives.iterator();\n        hives = null;\n        while (it.hasNext()) it.next().weigh();",
      ),
      "could change what `hives` gives",
    ),
    holds(
      inMethod("Iterator<Hive> it = all.iterator();\n        while (it.hasNext()) it.next().weigh();"),
      "of which the items are `Object`",
    ),
    holds(
      inMethod(
        "Iterator<Hive> it = hives.iterator();\n        while (it.hasNext()) it.next().weigh();\n        use(it);",
      ),
      "outside of the loop",
    ),
    holds(
      inMethod("Iterator<Hive> it;\n        for (it = hives.iterator(); it.hasNext();) it.next().weigh();"),
      "ahead of the loop",
    ),
    holds(
      `import java.util.*;\n\nclass Bag {\n    Iterator<Hive> iterator() { return null; }\n}\n\nclass A {\n    void f(Bag bag) {\n        for (Iterator<Hive> it = bag.iterator(); it.hasNext();) it.next().weigh();\n    }\n}\n`,
      "`Bag`",
    ),
    ignores(
      inMethod(
        "for (Iterator<Hive> it = hives.iterator(); it.hasNext();) if (it.next().isFull()) it.remove();",
      ),
    ),
    ignores(
      inMethod(
        "for (Iterator<Hive> it = hives.iterator(); it.hasNext();) { Hive a = it.next(); Hive b = it.next(); }",
      ),
    ),
    ignores(
      inMethod(
        "for (Iterator<Hive> it = hives.iterator(); it.hasNext();) if (n > 3 && it.next().isFull()) n++;",
      ),
    ),
    ignores(
      inMethod(
        "for (Iterator<Hive> it = hives.iterator(); it.hasNext();) { if (n > 3) break; it.next().weigh(); }",
      ),
    ),
    ignores(inMethod("Iterator<Hive> it = hives.iterator();\n        if (it.hasNext()) it.next().weigh();")),
    trialsIn("java", "1.4").ignores(
      inMethod("for (Iterator it = all.iterator(); it.hasNext();) use(it.next());"),
    ),
  ],
});
