import {
  changesOf,
  condition,
  copy,
  exitsOf,
  holes,
  jumpOf,
  no,
  ofKind,
  oncePerNode,
  referencesAt,
  removal,
  rule,
} from "../../../core.js";
import { shortened, trialsIn, unknown, weakest, yes } from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { reachingByName } from "../by-name.js";

const { owner } = holes({ owner: { kind: "statement", node: "class_declaration" } });

/** A property, the parameter that it takes its value from, and the statement that gives it. */
interface Promoted {
  readonly property: SyntaxNode;
  readonly parameter: SyntaxNode;
  readonly assignment: SyntaxNode;
}

const membersOf = (node: SyntaxNode): readonly SyntaxNode[] => node.child("body")?.parts ?? [];
const constructorOf = (node: SyntaxNode): SyntaxNode | undefined =>
  membersOf(node).find(
    (one) => one.is("method_declaration") && /^__construct$/i.test(one.child("name")?.text ?? ""),
  );
/** The properties of objects, by their names with the dollar. */
const isOfObjects = (node: SyntaxNode): boolean =>
  node.is("property_declaration") && !node.parts.some((part) => part.is("static_modifier"));
const namesIn = (property: SyntaxNode): string[] =>
  property.parts.flatMap((part) => (part.is("property_element") ? [part.child("name")!.text] : []));

/** All properties of a class that its constructor does nothing with but to store a parameter of the same name and type. */
const promotedIn = oncePerNode((node): readonly Promoted[] => {
  const maker = constructorOf(node);
  const [parameters, body] = [maker?.child("parameters"), maker?.child("body")];
  if (!parameters || !body) return [];
  return membersOf(node).flatMap((property): Promoted[] => {
    const [name, ...others] = isOfObjects(property) ? namesIn(property) : [];
    if (name === undefined || others.length > 0 || isRemarked(property)) return [];
    const parameter = parameters.parts.find((one) => one.child("name")?.text === name);
    const assignment = body.parts.find((one) => storedBy(one) === name);
    if (!parameter || !assignment || isRemarked(assignment)) return [];
    const [type, wanted] = [parameter.child("type")?.text, property.child("type")?.text];
    const isMarked = [parameter, property].some((one) => one.parts.some((part) => part.is("attribute_list")));
    const isPlain = parameter.is("simple_parameter") && !parameter.child("reference_modifier");
    const isNullByDefault = /^null$/i.test(parameter.child("default_value")?.text ?? "");
    // What is null by default must say so in its type.
    const saysNull = type === undefined || /^\?|\b(?:null|mixed)\b/i.test(type);
    const fits = isPlain && !isMarked && type === wanted && (saysNull || !isNullByDefault);
    return fits && !reachesObject(body, assignment) ? [{ property, parameter, assignment }] : [];
  });
});

/** The parameter that a statement stores in the property of its name. */
const storedBy = ({ text }: SyntaxNode): string | undefined => {
  const [, name, value] = /^\$this\s*->\s*(\w+)\s*=\s*(\$\w+)\s*;$/.exec(text) ?? [];
  return name !== undefined && value === `$${name}` ? value : undefined;
};

/** Does a comment stand ahead of a statement or a member, or behind it on its line? */
function isRemarked({ tree, start, end, previousPart, parent }: SyntaxNode): boolean {
  const from = previousPart?.end ?? parent!.start;
  const ahead = tree
    .commentsIn(from, start)
    .filter((n) => tree.starts[n] === tree.firstOnLine(tree.starts[n]!));
  const lineEnd = tree.text.indexOf("\n", end);
  return ahead.length > 0 || tree.commentsIn(end, lineEnd < 0 ? tree.text.length : lineEnd).length > 0;
}

/** Do statements ahead of an assignment reach the object in another way than to fill it like this one, or leave? */
function reachesObject(body: SyntaxNode, assignment: SyntaxNode): boolean {
  const ahead = aheadOf(body, assignment);
  return (
    exitsOf(ahead).some((exit) => jumpOf(exit) !== "throw" || exit.is("exit_statement")) ||
    ahead.some((one) =>
      [...one.descendants()].some((node) => node.is("relative_scope") || node.text === "$this"),
    )
  );
}

/** What is done ahead of a statement, but for storing other parameters. */
const aheadOf = (body: SyntaxNode, assignment: SyntaxNode): readonly SyntaxNode[] =>
  body.parts.filter((one) => one.end <= assignment.start && storedBy(one) === undefined);

/** The parameter has the value that it came with when it is stored. */
function keepsValue(match: Match): Answer {
  const body = constructorOf(match.the(owner))!.child("body")!;
  return weakest([
    yes("flow.written", "each parameter is stored as it came"),
    ...promotedIn(match.the(owner)).map(({ parameter, assignment }) => {
      const name = parameter.child("name")!;
      const ahead = aheadOf(body, assignment);
      const byName = reachingByName(ahead);
      if (byName)
        return unknown(
          "name.reflection",
          `\`${shortened(byName.text)}\` could write to any variable`,
          byName,
        );
      const uses = ahead.flatMap((one) => one.mentions(name.text.slice(1)));
      const to = referencesAt(name.firstPart ?? name).find((one) => one.to)?.to;
      if (!to) return no("name.not-resolved", `what \`${name.text}\` is, is not known`, name);
      const written = changesOf(to).find(({ node }) => uses.some((use) => use.same(node)));
      if (!written) return yes("flow.written", `\`${name.text}\` is stored as it came`, parameter);
      return written.does === "write"
        ? no("flow.written", `\`${name.text}\` is given another value here`, written.node)
        : unknown("flow.written", `\`${name.text}\` could be given another value here`, written.node);
    }),
  ]);
}

/** Properties are walked, printed and serialised in the order in which the class declares them. */
function keepsOrder(match: Match): Answer {
  const node = match.the(owner);
  const promoted = promotedIn(node);
  const goes = (one: SyntaxNode): boolean => promoted.some(({ property }) => property.same(one));
  const old = membersOf(node).filter(isOfObjects).flatMap(namesIn);
  const maker = constructorOf(node)!;
  const moved = [...promoted]
    .sort((a, b) => a.parameter.start - b.parameter.start)
    .map(({ parameter }) => parameter.child("name")!.text);
  const now = membersOf(node).flatMap((one) =>
    one.same(maker) ? moved : isOfObjects(one) && !goes(one) ? namesIn(one) : [],
  );
  return old.join() === now.join()
    ? yes("flow.order", "the properties stay in their order")
    : unknown(
        "flow.order",
        `the order of the properties was ${old.join(", ")}, and would be ${now.join(", ")}`,
      );
}

/** A value of its own is seen where the constructor has not run. Without a type, null is every property's. */
function hasNoOtherValue(match: Match): Answer {
  const preset = promotedIn(match.the(owner)).find(({ property }) => {
    const value = property.parts.at(-1)?.child("default_value")?.text;
    return value !== undefined && (property.child("type") !== undefined || !/^null$/i.test(value));
  });
  return preset
    ? unknown(
        "flow.assigned",
        `\`${shortened(preset.property.text)}\` holds where the constructor does not run`,
        preset.property,
      )
    : yes("flow.assigned", "the properties have no values but those of the parameters");
}

/** What a property's declaration says ahead of its type. */
function modifiersOf(property: SyntaxNode): string {
  const words = property.parts.flatMap((part) => (/_modifier$/.test(part.kind) ? [part.text] : []));
  return words.map((word) => (word === "var" ? "public" : word)).join(" ");
}

function rewritten(match: Match): Segment[] {
  const node = match.the(owner);
  const promoted = promotedIn(node);
  const edits = promoted.flatMap(({ property, parameter, assignment }): Edit[] => [
    withBlank(property),
    { start: parameter.start, end: parameter.start, text: `${modifiersOf(property)} ` },
    removal(assignment),
  ]);
  return [
    copy(
      node.start,
      node.end,
      edits.sort((a, b) => a.start - b.start),
    ),
  ];
}

/** A declaration goes with the blank line behind it, unless another one stands right ahead of it that stays. */
function withBlank(property: SyntaxNode): Edit {
  const { text } = property.tree;
  const edit = removal(property);
  const blank = /^[ \t]*\r?\n/.exec(text.slice(edit.end))?.[0] ?? "";
  const ahead = property.previousPart;
  const isFirst = ahead === undefined || /\n[ \t]*\r?\n[ \t]*$/.test(text.slice(ahead.end, property.start));
  const goesOn =
    ahead !== undefined && promotedIn(property.parent!.parent!).some((one) => one.property.same(ahead));
  return isFirst || goesOn ? { ...edit, end: edit.end + blank.length } : edit;
}

const { rewrites, ignores, holds } = trialsIn("php", "8.1");
const inClass = (members: string, head = "class Hive"): string => `<?php\n${head}\n{\n${members}}\n`;

export const promotedProperty = rule({
  id: "php/promoted-property",
  kind: "idiom",
  title: "Declare a property among the parameters of the constructor",
  why: "The name of the property is written four times, and its type twice.",
  target: "8.0",
  was: ofKind(owner, { when: (node) => promotedIn(node).length > 0 }),
  mentions: ["__construct"],
  given: [
    condition("each parameter is stored as it came", keepsValue),
    condition("the properties stay in their order", keepsOrder),
    condition("the properties have no other value", hasNoOtherValue),
  ],
  becomes: rewritten,
  trials: [
    rewrites(
      inClass(
        "    private string $name;\n    protected ?Queen $queen;\n\n    public function __construct(string $name, ?Queen $queen = null)\n    {\n        $this->name = $name;\n        $this->queen = $queen;\n        note($name);\n    }\n",
      ),
      inClass(
        "    public function __construct(private string $name, protected ?Queen $queen = null)\n    {\n        note($name);\n    }\n",
      ),
    ),
    rewrites(
      inClass(
        "    public readonly int $frames;\n    /** @var int[] in grams */\n    private array $weights;\n\n    function __construct(int $frames, array $weights)\n    {\n        if ($frames < 1) {\n            throw new NoFrames();\n        }\n        $this->frames = $frames;\n        $this->weights = $weights;\n    }\n",
      ),
      inClass(
        "    /** @var int[] in grams */\n    private array $weights;\n\n    function __construct(public readonly int $frames, array $weights)\n    {\n        if ($frames < 1) {\n            throw new NoFrames();\n        }\n        $this->weights = $weights;\n    }\n",
      ),
      "likely",
    ),
    rewrites(
      inClass(
        "    var $name;\n\n    function __construct($name) { $this->name = $name; }\n",
        "final class Hive",
      ),
      inClass("    function __construct(public $name) { }\n", "final class Hive"),
    ),
    rewrites(
      inClass(
        "    private int $n = 0;\n    function __construct(int $n)\n    {\n        $this->n = $n;\n    }\n",
      ),
      inClass("    function __construct(private int $n)\n    {\n    }\n"),
      "likely",
    ),
    rewrites(
      inClass(
        "    private string $name;\n    function __construct(string $name)\n    {\n        check($name);\n        $this->name = $name;\n    }\n",
      ),
      inClass("    function __construct(private string $name)\n    {\n        check($name);\n    }\n"),
      "likely",
    ),
    holds(
      inClass(
        "    private string $name;\n    function __construct(string $name)\n    {\n        $name = trim($name);\n        $this->name = $name;\n    }\n",
      ),
      "is given another value",
    ),
    rewrites(
      inClass("    private $n = null;\n\n    function __construct($n) { $this->n=$n; }\n"),
      inClass("    function __construct(private $n) { }\n"),
    ),
    rewrites(
      inClass("    private $n;\n    function __construct($n, $all) { extract($all); $this->n = $n; }\n"),
      inClass("    function __construct(private $n, $all) { extract($all); }\n"),
      "likely",
    ),
    ignores(
      inClass("    private $n;\n    function __construct($n) { if ($n < 0) { return; } $this->n = $n; }\n"),
    ),
    ignores(inClass("    private $n; // kilos\n    function __construct($n) { $this->n = $n; }\n")),
    ignores(
      inClass(
        "    private $n;\n    function __construct($n) {\n        // kilos\n        $this->n = $n;\n    }\n",
      ),
    ),
    ignores(
      inClass(
        "    private string $name;\n    function __construct(string $name)\n    {\n        $this->open();\n        $this->name = $name;\n    }\n",
      ),
    ),
    ignores(
      inClass(
        "    private string $name;\n    function __construct(string $name)\n    {\n        parent::__construct();\n        $this->name = $name;\n    }\n",
        "class Hive extends Box",
      ),
    ),
    ignores(
      inClass("    private string $n;\n    function __construct($n)\n    {\n        $this->n = $n;\n    }\n"),
    ),
    ignores(
      inClass(
        "    private int $n;\n    function __construct(int $n)\n    {\n        $this->n = $n * 2;\n    }\n",
      ),
    ),
    ignores(
      inClass("    private $n;\n    function __construct(&$n)\n    {\n        $this->n = $n;\n    }\n"),
    ),
    ignores(
      inClass(
        "    private Queen $q;\n    function __construct(Queen $q = null)\n    {\n        $this->q = $q;\n    }\n",
      ),
    ),
    ignores(inClass("    static $n;\n    function __construct($n)\n    {\n        $this->n = $n;\n    }\n")),
    trialsIn("php", "7.4").ignores(
      inClass(
        "    private int $n;\n    function __construct(int $n)\n    {\n        $this->n = $n;\n    }\n",
      ),
    ),
  ],
});
