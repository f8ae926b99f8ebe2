import { z } from "zod";
import {
  classesNamed,
  condition,
  holes,
  importsIn,
  no,
  ofKind,
  options,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, OwnClass, Rule, SyntaxNode, SyntaxTree } from "../../../core.js";

const { call } = holes({ call: { kind: "expression", node: "scoped_call_expression" } });

const settings = z.object({
  bases: z
    .array(z.string())
    .default([])
    .describe("the classes of the framework whose derived classes pass static calls on to a query"),
  query: z.string().default("query").describe("the static method that makes the query"),
  real: z.array(z.string()).default([]).describe("static methods that the framework's class really has"),
});
type Settings = z.output<typeof settings>;

/** A class of the project and those that it is derived from, and the first parents that are not in the project. */
function familyOf(tree: SyntaxTree, name: string, depth = 0): { own: OwnClass[]; foreign: string[] } {
  const { classes } = classesNamed(tree, name);
  const [only, ...more] = classes;
  if (!only || more.length > 0 || depth > 6) return { own: [], foreign: [name] };
  const above = only.parents.map((parent) => familyOf(tree, parent.replace(/^.*\\/, ""), depth + 1));
  return {
    own: [only, ...above.flatMap(({ own }) => own)],
    foreign: above.flatMap(({ foreign }) => foreign),
  };
}

/** The name of the class as its file declares it, where the call names it by an alias. */
function className(scope: SyntaxNode): string {
  const written = scope.text.replace(/^.*\\/, "");
  const item = importsIn(scope.tree)
    .flatMap(({ imports }) => imports)
    .find((one) => (one.local ?? one.name) === written);
  return item?.name ?? written;
}

const KEPT = ["self", "static", "parent"];

/** Is a static method called that no class of the project has, on one that is derived from the framework's? */
function isPassedOn(node: SyntaxNode, { bases, query, real }: Settings): boolean {
  const [scope, name] = [node.child("scope"), node.child("name")];
  if (!scope || !name?.is("name") || KEPT.includes(scope.text) || !scope.is(["name", "qualified_name"]))
    return false;
  if (name.text === query || real.includes(name.text)) return false;
  const { own, foreign } = familyOf(node.tree, className(scope));
  const isModel =
    own.slice(1).some((one) => bases.includes(one.name ?? "")) || foreign.some((one) => bases.includes(one));
  return own.length > 0 && isModel && !bases.includes(own[0]!.name ?? "");
}

function isNoMethod(node: SyntaxNode): Answer {
  const name = node.child("name")!.text;
  const { own, foreign } = familyOf(node.tree, className(node.child("scope")!));
  const found = own.find((one) =>
    one.members.some((member) => member.as === "method" && member.name.toLowerCase() === name.toLowerCase()),
  );
  if (found)
    return no(
      "type.stand-in",
      `\`${found.name}\` really has a method \`${name}\` (${found.path === "" ? `line ${found.line}` : found.path})`,
      node,
    );
  // Its name alone says that it is the framework's.
  const [base] = foreign;
  return base !== undefined
    ? unknown(
        "type.stand-in",
        `\`${base}\` is not in the project, and could really have a method \`${name}\``,
        node,
      )
    : yes("type.stand-in", `no class has a static method \`${name}\``);
}

const { rewrites, holds, ignores } = trialsIn("php", undefined, { bases: ["Record"], real: ["find"] });
const php = (code: string): string =>
  `<?php\nclass Hive extends Record {\n    public static function full() { return 1; }\n}\n${code}\n`;

const make = (set: Settings): Rule =>
  rule({
    id: "php/explicit-query",
    kind: "idiom",
    title: "Make the query of a model class explicit",
    why: "A static method that no class has is found by nobody: neither by the editor nor by who reads it first.",
    taste: true,
    was: ofKind(call, { when: (node) => isPassedOn(node, set) }),
    mentions: ["::"],
    options: options(settings, make),
    given: [condition("no class really has the method", (match) => isNoMethod(match.the(call)))],
    becomes: (match) => {
      const node = match.the(call);
      const list = node.child("arguments")!;
      return [text(`${node.child("scope")!.text}::${set.query}()->${node.child("name")!.text}${list.text}`)];
    },
    trials: [
      rewrites(
        php("$a = Hive::where('age', 3)->get();"),
        php("$a = Hive::query()->where('age', 3)->get();"),
        "likely",
      ),
      // The framework's class is in sight.
      rewrites(
        `${php("Hive::where(1);")}class Record { static function find() {} }\n`,
        `${php("Hive::query()->where(1);")}class Record { static function find() {} }\n`,
      ),
      // So is not what a trait brings.
      rewrites(
        "<?php\nclass Record {}\nclass Hive extends Record { use Finds; }\nHive::where(1);\n",
        "<?php\nclass Record {}\nclass Hive extends Record { use Finds; }\nHive::query()->where(1);\n",
        "likely",
      ),
      holds(`${php("Hive::all();")}class Record { static function all() {} }\n`, "really has a method"),
      rewrites(php("$a = Hive::orderBy('age');"), php("$a = Hive::query()->orderBy('age');"), "likely"),
      holds(php("$a = Hive::full();"), "really has a method"),
      ignores(php("$a = Hive::query()->where('age', 3);")),
      ignores(php("$a = Hive::find(3);")),
      ignores(php("$a = Other::where('age', 3);")),
      ignores(php("$a = Hive::LIMIT;")),
      ignores("<?php\nclass Hive extends Box {}\n$a = Hive::where('age', 3);\n"),
      trialsIn("php", undefined, { bases: ["Record"] }).rewrites(
        php("Hive::where(1);"),
        php("Hive::query()->where(1);"),
        "likely",
      ),
      trialsIn("php").ignores(php("$a = Hive::where('age', 3);")),
    ],
  });

export const explicitQuery = make(settings.parse({}));
