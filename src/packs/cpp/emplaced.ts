import {
  classesNamed,
  condition,
  copy,
  holes,
  no,
  ofKind,
  placeOf,
  referencesAt,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../core.js";
import { containerOf, type Container } from "./containers.js";
import { writtenType, type WrittenType } from "./written-type.js";

const { call } = holes({ call: { kind: "expression", node: "call_expression" } });

const PLACES: Readonly<Record<string, string>> = {
  push_back: "emplace_back",
  push_front: "emplace_front",
  insert: "emplace",
  push: "emplace",
};

/** A call that puts what is made for it alone into a container, by its parts. */
interface Put {
  readonly items: SyntaxNode;
  readonly method: SyntaxNode;
  readonly made: SyntaxNode;
  /** What is called to make it. */
  readonly maker: string;
}

function putAt(node: SyntaxNode): Put | undefined {
  const callee = node.child("function");
  const [items, method] = callee?.is("field_expression")
    ? [callee.child("argument"), callee.child("field")]
    : [];
  const [made, ...more] = node.child("arguments")?.parts ?? [];
  if (!items || !method || !made?.is("call_expression") || more.length > 0) return undefined;
  // What `emplace_back` gives is no longer nothing.
  if (method.text.startsWith("push") && !node.parent?.is("expression_statement")) return undefined;
  return PLACES[method.text] === undefined
    ? undefined
    : { items, method, made, maker: made.child("function")!.text };
}

const plain = (type: string): string => type.replace(/\bstd::|\s+/g, "");

/** What a container holds: `Jar` for `std::vector<Jar>`, a pair for a map. */
function heldBy({ name, types: [first, second] }: Container): string | undefined {
  return name.endsWith("map") && second !== undefined ? `std::pair<${first}, ${second}>` : first;
}

const BUILT_IN =
  /^(bool|char|short|int|long|float|double|unsigned|signed|size_t|u?int\d+_t|wchar_t|(?:std::)?make_pair)$/;

/** Does a container take an item as it is by this method, and is one made for it here? */
function makesItem(node: SyntaxNode): boolean {
  const put = putAt(node);
  if (!put) return false;
  const { items, method, maker } = put;
  const type = writtenType(items);
  const container = type && containerOf(type);
  const isKeyed = container?.is === "nodes" && /(map|set)$/.test(container.name);
  if (method.text === "insert" && !isKeyed) return false;
  if (method.text === "push" && container?.is !== "queue") return false;
  const held = container && heldBy(container);
  if (held !== undefined) return isMakerOf(held, put, type!);
  return !BUILT_IN.test(maker) && classesNamed(node.tree, nameOf(maker)).classes.length > 0;
}

/** Does it make what the container holds? A number is only turned into another one. */
function isMakerOf(held: string, { maker }: Put, type: WrittenType): boolean {
  if (isPairMaker(maker)) return /^pair</.test(plain(held));
  if (/::value_type$/.test(maker)) return plain(maker) === `${plain(type.text)}::value_type`;
  return !BUILT_IN.test(maker) && plain(held) === plain(maker);
}

const isPairMaker = (maker: string): boolean => /^(?:std::)?make_pair$/.test(maker);

const nameOf = (maker: string): string => /(\w+)(?:<.*>)?$/s.exec(maker)?.[1] ?? maker;

/** Does the container make items itself, of what it is handed? */
function isContainer({ node }: Match): Answer {
  const { items } = putAt(node)!;
  const type = writtenType(items);
  const container = type && containerOf(type);
  if (!container)
    return unknown("type.not-known", `what \`${shortened(items.text)}\` holds is not known`, items);
  return container.isStandard
    ? yes("type.is", type.why, type.at)
    : unknown("type.not-known", `${type.why}, which could be a class of the project`, type.at);
}

/** Does an argument come to the constructor as it came, handed on by reference? */
function isHandedOn({ node }: Match): Answer {
  const args = putAt(node)!.made.child("arguments")!.parts;
  let doubt: Answer | undefined;
  for (const arg of args) {
    const shown = shortened(arg.text);
    if (arg.is("initializer_list"))
      return no("form.fits", `\`${shown}\` has no type, and cannot be handed on`, arg);
    if (arg.is("null") && arg.text === "NULL")
      return no("form.fits", `\`${shown}\` is a number where it is handed on`, arg);
    if (/^0(x0*|b0*|0*)[ul]*$/i.test(arg.text))
      doubt ??= unknown(
        "form.fits",
        `\`${shown}\` is a number where it is handed on, and could stand for a pointer`,
        arg,
      );
    else {
      const found = doubtAbout(arg);
      if (found?.is === "no") return found;
      doubt ??= found;
    }
  }
  return doubt ?? yes("form.fits", "the arguments can be handed on");
}

function doubtAbout(arg: SyntaxNode): Answer | undefined {
  const shown = shortened(arg.text);
  if (arg.is("identifier")) {
    const to = referencesAt(arg).find((one) => one.to)?.to;
    return to && (to.as === "local" || to.as === "parameter")
      ? undefined
      : unknown(
          "form.fits",
          `\`${shown}\` could be a function with overloads, or a constant without a place`,
          arg,
        );
  }
  if (arg.is("qualified_identifier"))
    return unknown("form.fits", `\`${shown}\` could be a constant without a place`, arg);
  if (!arg.is("field_expression")) return undefined;
  const object = arg.child("argument")!;
  const type = typeOf(object);
  const [own, ...more] = type ? classesNamed(arg.tree, type.name).classes : [];
  const member = own?.members.find((one) => one.name === arg.child("field")!.text);
  if (member && /:\s*\d/.test(member.text))
    return no("form.fits", `\`${shown}\` is a bit field, which has no address`, arg);
  return member && more.length === 0
    ? undefined
    : unknown("form.fits", `\`${shown}\` could be a bit field, which has no address`, arg);
}

/** What is handed to an owner belongs to it at once, and not only when there is room for the owner. */
function isOwnedAtOnce({ node }: Match): Answer {
  const { made, maker } = putAt(node)!;
  const args = made.child("arguments")!;
  const created = [...args.descendants()].find((one) => one.is("new_expression"));
  const isOwner = /\b(?:unique|shared|auto)_ptr\b|\b\w+_handle\b/.test(maker);
  const given = created ?? (isOwner ? args.firstPart : undefined);
  return given
    ? no("resource.owner", `\`${shortened(given.text)}\` has no owner while the container makes room`, given)
    : yes("resource.owner", "nothing is made that needs an owner");
}

/** A container can only call a constructor that everybody can. */
function canBeMade({ node }: Match): Answer {
  const { maker, made } = putAt(node)!;
  if (/^std::/.test(maker) || isPairMaker(maker) || /::value_type$/.test(maker))
    return yes("type.is", `\`${shortened(maker)}\` is of the library`);
  const name = nameOf(maker);
  const [own, ...more] = classesNamed(node.tree, name).classes;
  if (!own || more.length > 0)
    return unknown("type.not-known", `the constructors of \`${name}\` are not known`, made);
  const hidden = own.members.find((one) => one.as === "constructor" && !one.isOpen);
  return hidden
    ? unknown("type.is", `not everybody can call all constructors of \`${name}\` (${placeOf(own)})`, made)
    : yes("type.is", `everybody can make a \`${name}\` (${placeOf(own)})`, made);
}

function emplacedIn({ node }: Match): Segment[] {
  const { method, made } = putAt(node)!;
  const args = made.child("arguments")!;
  const edits: Edit[] = [
    { start: method.start, end: method.end, text: PLACES[method.text]! },
    { start: made.start, end: args.start + 1, text: "" },
    { start: args.end - 1, end: made.end, text: "" },
  ];
  return [copy(node.start, node.end, edits)];
}

const { rewrites, ignores, holds } = trialsIn("cpp", "11");
const JAR = "struct Jar { Jar(int kg, std::string name); int kg; int full : 1; };\n";
const inFunction = (code: string): string =>
  `${JAR}void f(std::vector<Jar>& jars, std::map<int, Jar>& by, int n, const Jar& one, std::vector<std::unique_ptr<Jar>>& owned) {\n  ${code}\n}\n`;

export const emplaced = rule({
  id: "cpp/emplaced",
  kind: "idiom",
  title: "Let a container make its item in place",
  why: "The item is made for the call, and then copied or moved into the container.",
  target: "11",
  was: ofKind(call, { when: makesItem }),
  mentions: Object.keys(PLACES),
  given: [
    condition("the container makes its items itself", isContainer),
    condition("everybody can make such an item", canBeMade),
    condition("the arguments can be handed on", isHandedOn),
    condition("nothing is made that needs an owner", isOwnedAtOnce),
  ],
  becomes: emplacedIn,
  trials: [
    rewrites(inFunction('jars.push_back(Jar(n, "clover"));'), inFunction('jars.emplace_back(n, "clover");')),
    rewrites(inFunction("jars.push_back(Jar(one));"), inFunction("jars.emplace_back(one);")),
    rewrites(inFunction("by.insert(std::make_pair(n, one));"), inFunction("by.emplace(n, one);")),
    rewrites(
      inFunction("if (by.insert(std::pair<int, Jar>(n, one)).second) stop();"),
      inFunction("if (by.emplace(n, one).second) stop();"),
    ),
    rewrites(
      inFunction("by.insert(std::map<int, Jar>::value_type(n + 1, one));"),
      inFunction("by.emplace(n + 1, one);"),
    ),
    rewrites(
      "void f(std::vector<std::string>* names, char c) { names->push_back(std::string(3, c)); }\n",
      "void f(std::vector<std::string>* names, char c) { names->emplace_back(3, c); }\n",
    ),
    rewrites(
      `${JAR}class Shelf { std::deque<Jar> jars_; void add(int n); };\nvoid Shelf::add(int n) { jars_.push_front(Jar(n, name())); }\n`,
      `${JAR}class Shelf { std::deque<Jar> jars_; void add(int n); };\nvoid Shelf::add(int n) { jars_.emplace_front(n, name()); }\n`,
    ),
    // 0 is a pointer for a constructor, and a number for a function that hands it on.
    rewrites(
      inFunction("jars.push_back(Jar(0, name()));"),
      inFunction("jars.emplace_back(0, name());"),
      "likely",
    ),
    rewrites(
      inFunction("jars.push_back(Jar(kMost, name()));"),
      inFunction("jars.emplace_back(kMost, name());"),
      "likely",
    ),
    rewrites(
      "void f(std::vector<Other>& others, int n) { others.push_back(Other(n)); }\n",
      "void f(std::vector<Other>& others, int n) { others.emplace_back(n); }\n",
      "likely",
    ),
    rewrites(
      `${JAR}void f(Shelf& shelf, int n) { shelf.jars.push_back(Jar(n, name())); }\n`,
      `${JAR}void f(Shelf& shelf, int n) { shelf.jars.emplace_back(n, name()); }\n`,
      "likely",
    ),
    rewrites(
      inFunction("jars.push_back(Jar(one.kg, name()));"),
      inFunction("jars.emplace_back(one.kg, name());"),
    ),
    rewrites(
      "class Key { friend class Ring; Key(int n); };\nvoid f(std::vector<Key>& keys, int n) { keys.push_back(Key(n)); }\n",
      "class Key { friend class Ring; Key(int n); };\nvoid f(std::vector<Key>& keys, int n) { keys.emplace_back(n); }\n",
      "likely",
    ),
    holds(inFunction("owned.push_back(std::unique_ptr<Jar>(new Jar(one)));"), "has no owner while"),
    holds(inFunction("owned.push_back(std::unique_ptr<Jar>(make(n)));"), "has no owner while"),
    holds(inFunction("jars.push_back(Jar(one.full, name()));"), "is a bit field"),
    holds(inFunction("jars.push_back(Jar({1, 2}, name()));"), "has no type"),
    // What is called is a function, or makes something of which the item is made.
    ignores(inFunction("jars.push_back(make(n));")),
    ignores(inFunction("return jars.push_back(Jar(one));")),
    ignores("void f(std::vector<std::string>& names) { names.push_back(Name(3)); }\n"),
    ignores("void f(std::vector<Hive*>& hives) { hives.push_back(Hive(3)); }\n"),
    ignores("void f(std::vector<long>& ns, int n) { ns.push_back(long(n)); }\n"),
    ignores(inFunction("jars.push_back(one);")),
    ignores(inFunction("jars.insert(jars.begin(), Jar(one));")),
    trialsIn("cpp", "98").ignores(inFunction("jars.push_back(Jar(one));")),
  ],
});
