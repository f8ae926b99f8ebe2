import {
  condition,
  copy,
  holes,
  isBuiltin,
  ofKind,
  originOf,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";

const BUILTIN: Readonly<Record<string, string>> = {
  Dict: "dict",
  FrozenSet: "frozenset",
  List: "list",
  Set: "set",
  Text: "str",
  Tuple: "tuple",
  Type: "type",
};

const { name } = holes({
  name: { kind: "expression", node: ["identifier", "attribute", "subscript"] },
});

/** The name of the type: what stands ahead of the brackets where a member of the module has some. */
const nameOf = (node: SyntaxNode): SyntaxNode => (node.is("subscript") ? node.firstPart! : node);

/** Does the name come from `typing`, and stand neither in an import nor for a part of a longer one? */
function isOfTyping(node: SyntaxNode): boolean {
  const { parent } = node;
  const read = nameOf(node);
  if (BUILTIN[(read.child("attribute") ?? read).text] === undefined) return false;
  if (node.closest(["import_from_statement", "import_statement"])) return false;
  if (node.is("identifier") && parent?.is(["attribute", "keyword_argument"])) return false;
  // A member of the module is read in another way than a name where brackets follow, so both go together.
  if (node.is("attribute") && parent?.is("subscript") && node.field === "value") return false;
  if (node.is("subscript") && !nameOf(node).is("attribute")) return false;
  const origin = originOf(nameOf(node));
  return origin?.module === "typing" && origin.name !== undefined && BUILTIN[origin.name] !== undefined;
}

const typeFor = (match: Match): string => BUILTIN[originOf(nameOf(match.the(name)))!.name!]!;

function builtinType(match: Match): Segment[] {
  const node = match.the(name);
  const rest = nameOf(node).same(node) ? [] : [copy(nameOf(node).end, node.end)];
  return [text(typeFor(match)), ...rest];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const builtinTypes = rule({
  id: "python/builtin-types",
  kind: "deprecated",
  title: "Write list, dict, tuple and the like for types",
  why: "The types of the language take the place of those of `typing`, which are kept for old code.",
  was: ofKind(name, { when: isOfTyping }),
  mentions: ["typing"],
  target: "3.9",
  given: [
    condition("the type is the built-in one", (match) => isBuiltin(typeFor(match), match.node)),
    condition("it says the same", () => yes("type.same", "the name of `typing` stands for that type")),
  ],
  becomes: builtinType,
  trials: [
    rewrites(
      "from typing import List\ndef f(xs: List[int]) -> None:\n    pass\n",
      "def f(xs: list[int]) -> None:\n    pass\n",
    ),
    rewrites(
      "from typing import Dict, List, Optional\nx: Dict[str, List[int]] = {}\ny: Optional[int] = None\n",
      "from typing import Optional\nx: dict[str, list[int]] = {}\ny: Optional[int] = None\n",
    ),
    rewrites("import typing\nx: typing.Tuple[int, ...] = ()\n", "x: tuple[int, ...] = ()\n"),
    rewrites(
      "from typing import List as L\nHives = L[str]\n",
      "from typing import List as L\nHives = L[str]\n",
    ),
    rewrites("from typing import Type\ndef f(t: Type) -> None: ...\n", "def f(t: type) -> None: ...\n"),
    holds("from typing import List\nclass A:\n    def list(self) -> List[int]: ...\n", "another meaning"),
    ignores("from hive import List\nx: List[int] = []\n"),
    ignores("x: List[int] = []\n"),
    trialsIn("python", "3.8").ignores("from typing import List\nx: List[int] = []\n"),
  ],
});
