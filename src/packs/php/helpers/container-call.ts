import { z } from "zod";
import {
  classesNamed,
  condition,
  copy,
  holes,
  isTarget,
  no,
  ofKind,
  options,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Rule, Segment, SyntaxNode } from "../../../core.js";

const { read } = holes({ read: { kind: "expression", node: "subscript_expression" } });

const settings = z.object({
  containers: z
    .record(z.string(), z.string())
    .default({})
    .describe(
      "classes of service containers, by their full or short names, and variables that hold one (`$app`), with the method that gives a service",
    ),
});
type Settings = z.output<typeof settings>;

/** The method that gives a service, and how the container is known. */
function methodFor(
  node: SyntaxNode,
  { containers }: Settings,
): { method: string; isKnown: boolean } | undefined {
  const [object, key, ...more] = node.parts;
  if (!object || !key || more.length > 0) return undefined;
  const type = typeOf(object);
  if (!type)
    return containers[object.text] === undefined
      ? undefined
      : { method: containers[object.text]!, isKnown: false };
  const full = type.module === undefined ? undefined : containers[`${type.module}\\${type.name}`];
  const method = full ?? containers[type.name];
  const isKnown = full !== undefined || classesNamed(node.tree, type.name).classes.length > 0;
  return method === undefined ? undefined : { method, isKnown };
}

/** Is the service only taken out, and neither put in nor asked for? */
function isRead(node: SyntaxNode): Answer {
  const { parent } = node;
  const asked = node.closest(["unset_statement"]);
  const call = node.closest(["function_call_expression"]);
  const isAsked =
    /^(isset|empty|unset)\s*\(/.test((asked ?? call)?.text ?? "") ||
    /\b(isset|empty|unset)\s*\(\s*$/.test(node.tree.text.slice(0, node.start));
  const isWritten =
    isTarget(node) ||
    (parent?.is(["assignment_expression", "augmented_assignment_expression"]) === true &&
      node.field === "left") ||
    parent?.is("update_expression") === true;
  return isAsked || isWritten
    ? no("flow.written", `\`${shortened(parent!.text)}\` does more than to take a service out`, parent)
    : yes("flow.written", "the service is only taken out");
}

const { rewrites, holds, ignores } = trialsIn("php", undefined, {
  containers: { "Comb\\Container": "make", Container: "make", $app: "make" },
});
const php = (code: string): string => `<?php\nfunction f(Container $services, Box $box) {\n    ${code}\n}\n`;

const make = (set: Settings): Rule =>
  rule({
    id: "php/container-call",
    kind: "idiom",
    title: "Call the method of a service container",
    why: "What looks like a list makes objects, and no editor knows which.",
    taste: true,
    was: ofKind(read, { when: (node) => methodFor(node, set) !== undefined }),
    mentions: ["["],
    options: options(settings, make),
    given: [
      condition(
        "it is a container",
        (match) =>
          methodFor(match.the(read), set)!.isKnown
            ? yes("type.is", "its class is one of the containers", match.node)
            : unknown("type.not-known", "only the name says that it is a container", match.node),
        { unknownIs: "possible" },
      ),
      condition("a service is only taken out", (match) => isRead(match.the(read))),
    ],
    becomes: (match): Segment[] => {
      const [object, key] = match.the(read).parts;
      const { method } = methodFor(match.the(read), set)!;
      return [copy(object!.start, object!.end), text(`->${method}(`), copy(key!.start, key!.end), text(")")];
    },
    trials: [
      rewrites(
        php("return $services['hives']->all();"),
        php("return $services->make('hives')->all();"),
        "possible",
      ),
      rewrites(
        `${php("return $services['hives'];")}class Container {}\n`,
        `${php("return $services->make('hives');")}class Container {}\n`,
      ),
      rewrites(
        php("return $services['hives'];").replace("<?php", "<?php\nuse Comb\\Container;\n"),
        php("return $services->make('hives');").replace("<?php", "<?php\nuse Comb\\Container;\n"),
      ),
      rewrites(php("$x = $app[Hive::class];"), php("$x = $app->make(Hive::class);"), "possible"),
      holds(php("$services['hives'] = 1;"), "does more than"),
      holds(php("if (isset($services['hives'])) return 1;"), "does more than"),
      holds(php("unset($services['hives']);"), "does more than"),
      ignores(php("return $box['hives'];")),
      ignores(php("return $services->hives;")),
      trialsIn("php").ignores(php("return $services['hives'];")),
    ],
  });

export const containerCall = make(settings.parse({}));
