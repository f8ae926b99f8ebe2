import { copy, holes, need, ofKind, originOf, rule, text, trialsIn } from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";

/** The classes that moved to a module of their own. */
const MOVED = new Set(
  (
    "Awaitable AsyncGenerator AsyncIterable AsyncIterator ByteString Callable Collection Container Coroutine Generator " +
    "Hashable ItemsView Iterable Iterator KeysView Mapping MappingView MutableMapping MutableSequence MutableSet Reversible " +
    "Sequence Set Sized ValuesView"
  ).split(" "),
);

const { place } = holes({ place: { kind: "statement", node: ["import_from_statement", "attribute"] } });

/** What an import takes from the module, as it is written. */
function itemsOf(statement: SyntaxNode): SyntaxNode[] {
  const module = statement.child("module_name");
  return statement.parts.filter((part) => !part.same(module));
}

const nameOf = (item: SyntaxNode): string => (item.is("aliased_import") ? item.child("name")! : item).text;

/** An import that a handler stands ready for is written for old versions too. */
function isForOldVersions(statement: SyntaxNode): boolean {
  const around = statement.closest(["try_statement"]);
  return around !== undefined && /\bexcept\s*(\(|.*ImportError|:)/.test(around.text);
}

function isMoved(node: SyntaxNode): boolean {
  if (node.is("attribute")) {
    if (!MOVED.has(node.child("attribute")!.text)) return false;
    const origin = originOf(node);
    return origin?.module === "collections" && MOVED.has(origin.name ?? "");
  }
  if (node.child("module_name")?.text !== "collections" || isForOldVersions(node)) return false;
  const items = itemsOf(node);
  return (
    items.some((item) => MOVED.has(nameOf(item))) && !node.text.includes("\n") && !node.text.includes("(")
  );
}

function fromNewModule(match: Match): Segment[] {
  const node = match.the(place);
  if (node.is("attribute")) return [text(`${match.nameOf(need("collections.abc"))}.${originOf(node)!.name}`)];
  const module = node.child("module_name")!;
  const items = itemsOf(node);
  const staying = items.filter((item) => !MOVED.has(nameOf(item)));
  if (staying.length === 0)
    return [copy(node.start, module.start), text("collections.abc"), copy(module.end, node.end)];
  const list = (some: readonly SyntaxNode[]): string => some.map((item) => item.text).join(", ");
  const moved = items.filter((item) => MOVED.has(nameOf(item)));
  const indent = node.tree.indentAt(node.start);
  return [
    text(`from collections import ${list(staying)}\n${indent}from collections.abc import ${list(moved)}`),
  ];
}

const { rewrites, ignores } = trialsIn("python");

export const abstractCollections = rule({
  id: "python/abstract-collections",
  kind: "breaks",
  title: "Take abstract collections from collections.abc",
  why: "collections has them no longer since Python 3.10.",
  was: ofKind(place, { when: isMoved, together: (node) => [node] }),
  mentions: ["collections"],
  target: "3.3",
  becomes: fromNewModule,
  trials: [
    rewrites(
      "from collections import Mapping\nf(Mapping)\n",
      "from collections.abc import Mapping\nf(Mapping)\n",
    ),
    rewrites(
      "from collections import OrderedDict, Iterable as It, Sequence\nf(OrderedDict, It, Sequence)\n",
      "from collections import OrderedDict\nfrom collections.abc import Iterable as It, Sequence\nf(OrderedDict, It, Sequence)\n",
    ),
    ignores("from collections import OrderedDict\nf(OrderedDict)\n"),
    ignores("from hive import Mapping\nf(Mapping)\n"),
    ignores(
      "try:\n    from collections.abc import Mapping\nexcept ImportError:\n    from collections import Mapping\n",
    ),
    ignores("from collections.abc import Mapping\nf(Mapping)\n"),
  ],
});
