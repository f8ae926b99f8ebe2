import { condition, copy, holes, ofKind, rule, shortened, trialsIn, unknown, yes } from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { isInFunction } from "./pointers.js";
import { containerOf } from "./containers.js";
import { writtenType } from "./written-type.js";

const { variable } = holes({ variable: { kind: "statement", node: "declaration" } });

const squeezed = (code: string): string => code.replace(/\bstd::|\s+/g, "");

/** The one variable that a declaration makes, with its type and its first value. */
interface Made {
  readonly type: SyntaxNode;
  /** All that is said of the type, signs and all, without a `const` that speaks of the variable alone. */
  readonly written: string;
  readonly value: SyntaxNode;
}

function madeBy(node: SyntaxNode): Made | undefined {
  const type = node.child("type");
  const declarators = node.parts.filter((part) => part.field === "declarator");
  const [only] = declarators;
  const value = only?.is("init_declarator") ? only.child("value") : node.child("value");
  if (!type || !only || declarators.length > 1 || !value?.is("call_expression")) return undefined;
  if (type.is("placeholder_type_specifier")) return undefined;
  let name: SyntaxNode | undefined = only.is("init_declarator") ? only.child("declarator") : only;
  while (name?.is(["pointer_declarator", "reference_declarator"]))
    name = name.child("declarator") ?? name.lastPart;
  if (!name?.is("identifier")) return undefined;
  const from = node.parts.find((part) => part.is("type_qualifier") || part.same(type))!.start;
  const before = node.tree.text.slice(from, name.start).trim();
  const signs = before.replace(/\s*\bconst$/, "");
  const written = /[*&]/.test(signs.replace(/<.*>/s, "")) ? signs : signs.replace(/^const\b|\bconst$/g, "");
  return { type, written: squeezed(written), value };
}

const CASTS = /^(static|dynamic|const|reinterpret)_cast$/;
const MAKERS: Readonly<Record<string, string>> = { make_unique: "unique_ptr", make_shared: "shared_ptr" };

/** What of the value says its type: a cast, a maker of owners. */
function saidByCall({ written, value }: Made): "cast" | "maker" | undefined {
  let callee = value.child("function");
  if (callee?.is("qualified_identifier")) callee = callee.child("name");
  const name = callee?.child("name")?.text ?? "";
  const list = callee?.is("template_function") ? callee.child("arguments") : undefined;
  const [type, ...more] = list?.parts ?? [];
  if (!type || more.length > 0) return undefined;
  const said = squeezed(type.text);
  const isSame = said === written || (!/[*&]/.test(said) && said.replace(/^const/, "") === written);
  if (CASTS.test(name)) return isSame ? "cast" : undefined;
  return MAKERS[name] !== undefined && written === `${MAKERS[name]}<${said}>` ? "maker" : undefined;
}

const GIVE_ITERATORS = /^(begin|end|find|lower_bound|upper_bound|erase)$/;

/** A container that says what its own iterators are. */
function saidByContainer({ written, value }: Made): boolean {
  const callee = value.child("function");
  const [items, method] = callee?.is("field_expression")
    ? [callee.child("argument"), callee.child("field")]
    : [];
  const type = items && writtenType(items);
  if (!type || !method || type.isPointer !== callee!.has("->")) return false;
  const is = (name: string): boolean => written === `${squeezed(type.text)}::${name}`;
  if (/^c(begin|end)$/.test(method.text)) return is("const_iterator");
  if (/^r(begin|end)$/.test(method.text)) return !type.isConstant && is("reverse_iterator");
  return GIVE_ITERATORS.test(method.text) && is(type.isConstant ? "const_iterator" : "iterator");
}

function saysItTwice(node: SyntaxNode): boolean {
  const made = isInFunction(node) ? madeBy(node) : undefined;
  return made !== undefined && (saidByCall(made) !== undefined || saidByContainer(made));
}

function isTheSame({ node }: Match): Answer {
  const made = madeBy(node)!;
  const { value } = made;
  const by = saidByCall(made);
  const callee = value.child("function")!;
  const type = by === undefined ? writtenType(callee.child("argument")!) : undefined;
  const isOfLibrary =
    by === "cast" ||
    (by === "maker" ? callee.text.startsWith("std::") : type && containerOf(type)?.isStandard);
  return isOfLibrary === true
    ? yes("type.same", `\`${shortened(value.text)}\` gives this very type`, value)
    : unknown(
        "type.same",
        `\`${shortened(callee.text)}\` could give something that is only turned into this type`,
        value,
      );
}

const { rewrites, ignores } = trialsIn("cpp", "11");
const inFunction = (code: string): string =>
  `void f(std::map<int, Jar>& by, const std::vector<int>& ns, Hive* hive, std::list<Jar>* jars) {\n  ${code}\n}\n`;

export const typeOnce = rule({
  id: "cpp/type-once",
  kind: "idiom",
  title: "Use auto where the value says the type",
  why: "The same long type twice in a line hides what is done, and both must be changed together.",
  target: "11",
  was: ofKind(variable, { when: saysItTwice, together: (node) => [node] }),
  given: [condition("the value has the type that is written", isTheSame)],
  becomes: ({ node }) => {
    const { type } = madeBy(node)!;
    return [copy(node.start, node.end, [{ start: type.start, end: type.end, text: "auto" }])];
  },
  trials: [
    rewrites(
      inFunction("std::map<int, Jar>::iterator it = by.find(3);\n  if (it != by.end()) by.erase(it);"),
      inFunction("auto it = by.find(3);\n  if (it != by.end()) by.erase(it);"),
    ),
    rewrites(
      inFunction("std::vector<int>::const_iterator it = ns.begin();\n  use(it);"),
      inFunction("auto it = ns.begin();\n  use(it);"),
    ),
    rewrites(
      inFunction("std::list<Jar>::iterator it = jars->begin();\n  use(it);"),
      inFunction("auto it = jars->begin();\n  use(it);"),
    ),
    rewrites(
      inFunction("Wooden* wooden = dynamic_cast<Wooden*>(hive);\n  use(wooden);"),
      inFunction("auto* wooden = dynamic_cast<Wooden*>(hive);\n  use(wooden);"),
    ),
    rewrites(
      inFunction("const Wooden& wooden = static_cast<const Wooden&>(*hive);\n  use(wooden);"),
      inFunction("const auto& wooden = static_cast<const Wooden&>(*hive);\n  use(wooden);"),
    ),
    rewrites(
      inFunction("const unsigned char low = static_cast<unsigned char>(ns[0]);\n  use(low);"),
      inFunction("const auto low = static_cast<unsigned char>(ns[0]);\n  use(low);"),
    ),
    rewrites(
      inFunction("std::unique_ptr<Jar> jar = std::make_unique<Jar>(3);\n  use(*jar);"),
      inFunction("auto jar = std::make_unique<Jar>(3);\n  use(*jar);"),
    ),
    rewrites(
      inFunction("if (Wooden* wooden = dynamic_cast<Wooden*>(hive)) use(wooden);"),
      inFunction("if (auto* wooden = dynamic_cast<Wooden*>(hive)) use(wooden);"),
    ),
    // What only has the name of something in the library could give what is turned into the type.
    rewrites(
      inFunction("Shelf<Jar>::iterator it = shelf.begin();\n  use(it);").replace(
        "Hive* hive",
        "Shelf<Jar>& shelf",
      ),
      inFunction("auto it = shelf.begin();\n  use(it);").replace("Hive* hive", "Shelf<Jar>& shelf"),
      "likely",
    ),
    // The value is of another type than what is made of it.
    ignores(inFunction("std::map<int, Jar>::const_iterator it = by.find(3);\n  use(it);")),
    ignores(inFunction("Hive* same = static_cast<Wooden*>(hive);\n  use(same);")),
    ignores(inFunction("const Wooden* wooden = dynamic_cast<Wooden*>(hive);\n  use(wooden);")),
    ignores(inFunction("Wooden wooden = static_cast<Wooden&>(*hive);\n  use(wooden);")),
    ignores(inFunction("std::shared_ptr<Hive> jar = std::make_shared<Wooden>(3);\n  use(*jar);")),
    ignores(inFunction("std::shared_ptr<Jar> jar = std::make_unique<Jar>(3);\n  use(*jar);")),
    ignores(inFunction("std::vector<Jar>::iterator it = elsewhere.begin();\n  use(it);")),
    ignores(inFunction("long all = static_cast<int>(ns[0]);\n  use(all);")),
    ignores(inFunction("Jar *one = static_cast<Jar*>(p), *two;\n  use(one);")),
    ignores("Wooden* wooden = static_cast<Wooden*>(hive);\n"),
    trialsIn("cpp", "98").ignores(
      inFunction("Wooden* wooden = dynamic_cast<Wooden*>(hive);\n  use(wooden);"),
    ),
  ],
});
