import { holes, nameInFile, ofKind, rule, trialsIn } from "../../core.js";
import type { Match, SyntaxNode } from "../../core.js";

const { field } = holes({ field: { kind: "statement", node: "field_declaration" } });

/** A use of a field, and the lock that is held there: `this`, `lock`, or none. */
interface Touch {
  readonly node: SyntaxNode;
  readonly lock: string | undefined;
  readonly writes: boolean;
}

/** What a lock that is taken is called, without the class or object that it is read of. */
const lockName = (text: string): string =>
  text
    .replace(/^this\./, "")
    .replace(/^\(|\)$/g, "")
    .trim();

const isStatic = (node: SyntaxNode): boolean =>
  node.parts.some((part) => part.is("modifiers") && part.has("static"));

/** The innermost lock that is held where a node stands; undefined where none is, "" where that cannot be told. */
function lockAt(node: SyntaxNode, className: string): string | undefined {
  for (const above of node.ancestors()) {
    if (above.is("synchronized_statement")) return lockName(above.firstPart!.text.replace(/^\(|\)$/g, ""));
    if (above.is(["lambda_expression", "class_body"]) && above.parent?.is("object_creation_expression"))
      return undefined;
    if (above.is("method_declaration")) {
      const isLocked = above.parts.some((part) => part.is("modifiers") && part.has("synchronized"));
      if (isLocked) return isStatic(above) ? `${className}.class` : "this";
      // A lock of the library is taken and released by calls.
      if (/\.(lock|lockInterruptibly|tryLock|writeLock|readLock)\(\)/.test(above.text)) return "";
      return undefined;
    }
  }
  return undefined;
}

/** Is a node part of what runs before others can see the object? */
const isBefore = (node: SyntaxNode): boolean =>
  node
    .closest([
      "constructor_declaration",
      "compact_constructor_declaration",
      "static_initializer",
      "method_declaration",
      "lambda_expression",
      "field_declaration",
    ])
    ?.is(["method_declaration", "lambda_expression"]) !== true;

interface Finding {
  readonly name: string;
  readonly lock: string;
  readonly guarded: number;
  readonly outside: readonly SyntaxNode[];
}

/** A private method that is called under the lock only holds it too. */
function isCalledUnder(lock: string, node: SyntaxNode, className: string, depth = 0): boolean {
  const method = node.closest(["method_declaration"]);
  const name = method?.child("name");
  if (!method || !name || depth > 3) return false;
  if (!method.parts.some((part) => part.is("modifiers") && part.has("private"))) return false;
  const calls = nameInFile(name.text, node.tree).references.filter(
    (one) => one.does === "read" || one.does === "passed",
  );
  return (
    calls.length > 0 &&
    calls.every(
      ({ node: call }) => lockAt(call, className) === lock || isCalledUnder(lock, call, className, depth + 1),
    )
  );
}

function findingAt(node: SyntaxNode): Finding | undefined {
  const modifiers = node.parts.find((part) => part.is("modifiers"));
  if (!modifiers?.has("private") || modifiers.has("final") || modifiers.has("volatile")) return undefined;
  const owner = node.closest(["class_declaration", "enum_declaration"]);
  const declarators = node.parts.filter((part) => part.is("variable_declarator"));
  const name = declarators.length === 1 ? declarators[0]!.child("name") : undefined;
  const className = owner?.child("name")?.text;
  if (!owner || !name || className === undefined || !/\bsynchronized\b/.test(owner.text)) return undefined;
  const said = /@GuardedBy\(\s*"([^"]+)"\s*\)/.exec(modifiers.text)?.[1];
  const touches = nameInFile(name.text, node.tree)
    .references.filter((one) => one.to?.at.some((at) => at.same(name)) === true && !one.node.same(name))
    .filter((one) => !isBefore(one.node))
    .map((one): Touch => ({
      node: one.node,
      lock: lockAt(one.node, className),
      writes: one.does !== "read",
    }));
  const locks = touches.flatMap(({ lock }) => (lock ? [lock] : []));
  const lock = said === undefined ? mostOften(locks) : lockName(said);
  if (lock === undefined || touches.some((one) => one.lock === "")) return undefined;
  const guarded = locks.filter((one) => one === lock).length;
  const outside = touches.filter((one) => one.lock !== lock && !isCalledUnder(lock, one.node, className));
  const isHabit =
    said !== undefined || (guarded >= 2 && guarded > outside.length && touches.some((one) => one.writes));
  return outside.length > 0 && isHabit
    ? { name: name.text, lock, guarded, outside: outside.map((one) => one.node) }
    : undefined;
}

function mostOften(names: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

function advice(match: Match): string {
  const { name, lock, guarded, outside } = findingAt(match.the(field))!;
  const lines = [...new Set(outside.map(({ line }) => line))];
  const where = `${lines.length > 1 ? "lines" : "line"} ${lines.join(", ")}`;
  const how = guarded === 0 ? "nowhere" : guarded === 1 ? "in one place" : `in ${guarded} places`;
  return `\`${name}\` is used under the lock of \`${lock}\` ${how}, and without it at ${where}: take the lock there too, or say why it is not needed`;
}

const { reports, ignores } = trialsIn("java");
const inClass = (code: string): string =>
  `class Hive {\n    private int bees;\n    private final Object gate = new Object();\n${code.replace(/^/gm, "    ")}\n}\n`;
const ADD = "synchronized void add() { bees++; }\nsynchronized int count() { return bees; }";

export const unguardedField = rule({
  id: "java/unguarded-field",
  kind: "smell",
  title: "Field that a lock guards in some places only",
  why: "A thread that reads without the lock may see an old value for ever, or half of a change.",
  was: ofKind(field, { when: (node) => findingAt(node) !== undefined }),
  mentions: ["synchronized"],
  advice,
  trials: [
    reports(inClass(`${ADD}\nint peek() { return bees; }`), "without it at line 6"),
    reports(
      inClass(
        "void a() { synchronized (gate) { bees++; } }\nvoid b() { synchronized (this.gate) { bees--; } }\nint peek() { return bees; }",
      ),
      "lock of `gate` in 2 places",
    ),
    reports(
      inClass(ADD).replace("private int", '@GuardedBy("gate")\n    private int'),
      "lock of `gate` nowhere",
    ),
    reports(inClass(`${ADD}\nRunnable later() { return () -> { bees = 0; }; }`), "without it at line 6"),
    ignores(inClass(ADD)),
    ignores(inClass(`${ADD}\nHive() { bees = 1; }`)),
    ignores(
      inClass(
        `synchronized void add() { grow(); bees++; }\nsynchronized int count() { return bees; }\nprivate void grow() { bees++; }`,
      ),
    ),
    ignores(inClass(`synchronized void add() { bees++; }\nint count() { return bees; }`)),
    ignores(inClass(`${ADD}\nint peek() { return bees; }`).replace("private int", "private volatile int")),
    ignores(inClass("int add() { return bees++; }\nint count() { return bees; }")),
  ],
});
