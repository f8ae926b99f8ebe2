import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  oncePerTree,
  originOf,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { type } = holes({ type: { kind: "expression", node: ["generic_type", "subscript"] } });

/** Does the file call one of the two something else? */
const renames = oncePerTree(({ text: code }) => ({ any: /\b(Optional|Union)\s+as\b/.test(code) }));

/** The types that are put together, without the marks around each; undefined where it is no union. */
function membersOf(node: SyntaxNode): { is: "Optional" | "Union"; members: SyntaxNode[] } | undefined {
  const [head, ...rest] = node.parts;
  if (!head || (!/(^|\.)(Optional|Union)$/.test(head.text) && !renames(head.tree).any)) return undefined;
  const origin = originOf(head);
  if (origin?.module !== "typing" || (origin.name !== "Optional" && origin.name !== "Union"))
    return undefined;
  const list = rest.length === 1 && rest[0]!.is("type_parameter") ? rest[0]!.parts : rest;
  const members = list.map((part) => (part.is("type") && part.parts.length === 1 ? part.firstPart! : part));
  const flat = members.length === 1 && members[0]!.is("tuple") ? members[0]!.parts : members;
  return flat.length === 0 || (origin.name === "Optional" && flat.length > 1)
    ? undefined
    : { is: origin.name, members: flat };
}

/** Where a type is written as a string, or starred, the operator has nothing to work on while the program runs. */
function canBeJoined(match: Match): Answer {
  const { members } = membersOf(match.the(type))!;
  const odd = members.find((one) => one.is(["string", "concatenated_string", "list_splat", "splat_type"]));
  return odd
    ? no("form.fits", `\`${odd.text}\` is no type yet while the program runs`, odd)
    : yes("form.fits", "all of them are types");
}

function joined(match: Match): Segment[] {
  const { is, members } = membersOf(match.the(type))!;
  const pieces = members.flatMap(({ start, end }, i): Segment[] => [
    ...(i === 0 ? [] : [text(" | ")]),
    copy(start, end),
  ]);
  return is === "Optional" ? [...pieces, text(" | None")] : pieces;
}

const { rewrites, ignores, holds } = trialsIn("python", "3.10");

export const unionOperator = rule({
  id: "python/union-operator",
  kind: "idiom",
  title: "Write alternatives of types with |",
  why: "`X | None` says what it means, and needs no import.",
  was: ofKind(type, { when: (node) => membersOf(node) !== undefined }),
  mentions: ["Optional", "Union"],
  target: "3.10",
  given: [
    condition("all of them are types", canBeJoined),
    condition("nothing looks at types while the program runs", (match) =>
      unknown(
        "value.result",
        "code that looks at types while the program runs gets an object of another class",
        match.node,
      ),
    ),
  ],
  becomes: joined,
  trials: [
    rewrites(
      "from typing import Optional\ndef f(x: Optional[int] = None) -> Optional[str]:\n    pass\n",
      "def f(x: int | None = None) -> str | None:\n    pass\n",
      "likely",
    ),
    rewrites(
      "from typing import List, Union\nx: Union[int, List[str]] = 1\n",
      "from typing import List\nx: int | List[str] = 1\n",
      "likely",
    ),
    rewrites(
      "import typing as t\nx: t.Optional[t.Any] = 1\n",
      "import typing as t\nx: t.Any | None = 1\n",
      "likely",
    ),
    rewrites("from typing import Union\nHive = Union[int, str]\n", "Hive = int | str\n", "likely"),
    holds('from typing import Optional\nx: Optional["Hive"] = None\n', "no type yet"),
    ignores("from hive import Optional\nx: Optional[int] = None\n"),
    ignores("from typing import List\nx: List[int] = []\n"),
    trialsIn("python", "3.9").ignores("from typing import Optional\nx: Optional[int] = None\n"),
  ],
});
