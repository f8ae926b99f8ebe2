import { z } from "zod";
import {
  classesNamed,
  condition,
  holes,
  no,
  ofKind,
  options,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Rule, SyntaxNode } from "../../../core.js";

const { name } = holes({ name: { kind: "expression", node: ["name", "qualified_name"] } });

const settings = z.object({
  aliases: z
    .record(z.string(), z.string().regex(/^[\w\\]+$/))
    .default({})
    .describe(
      "short names of classes that the framework makes up while it runs, with the classes that they stand for",
    ),
});
type Settings = z.output<typeof settings>;

/** The class that a short name in an import, or one with `\` in front, stands for. */
function classFor(node: SyntaxNode, { aliases }: Settings): string | undefined {
  const isImported =
    node.is("name") &&
    node.parent?.is("namespace_use_clause") === true &&
    node.field !== "alias" &&
    node.parent.parent?.is("namespace_use_declaration") === true;
  const isWhole =
    node.is("qualified_name") &&
    /^\\\w+$/.test(node.text) &&
    !node.parent?.is(["function_call_expression", "namespace_use_clause"]);
  const found = isImported || isWhole ? aliases[node.text.replace(/^\\/, "")] : undefined;
  return found?.replace(/^\\/, "");
}

const { rewrites, holds, ignores } = trialsIn("php", undefined, { aliases: { Log: "Comb\\Facades\\Log" } });

const make = (set: Settings): Rule =>
  rule({
    id: "php/full-name",
    kind: "idiom",
    title: "Import a class by its full name instead of a short alias",
    why: "Nothing in the project says which class an alias of the framework stands for.",
    taste: true,
    was: ofKind(name, { when: (node) => classFor(node, set) !== undefined }),
    mentions: ["use", "\\"],
    options: options(settings, make),
    given: [
      condition("the project has no class of that name", (match) => {
        const short = match.textOf(name).replace(/^\\/, "");
        const [own] = classesNamed(match.tree, short).classes;
        return own
          ? no(
              "name.library",
              `the project has a \`${short}\` of its own (${own.path || `line ${own.line}`})`,
              match.node,
            )
          : yes("name.library", `the project has no \`${short}\` of its own`);
      }),
    ],
    becomes: (match) => {
      const node = match.the(name);
      return [text(`${node.is("name") ? "" : "\\"}${classFor(node, set)!}`)];
    },
    trials: [
      rewrites(
        "<?php\nnamespace Shop;\n\nuse Log;\n\nLog::info('x');\n",
        "<?php\nnamespace Shop;\n\nuse Comb\\Facades\\Log;\n\nLog::info('x');\n",
      ),
      rewrites(
        "<?php\nnamespace Shop;\n\nuse Log as L;\n\nL::info('x');\n",
        "<?php\nnamespace Shop;\n\nuse Comb\\Facades\\Log as L;\n\nL::info('x');\n",
      ),
      rewrites(
        "<?php\nnamespace Shop;\n\n\\Log::info('x');\n",
        "<?php\nnamespace Shop;\n\n\\Comb\\Facades\\Log::info('x');\n",
      ),
      holds("<?php\nclass Log {}\n\\Log::info('x');\n", "of its own"),
      ignores("<?php\nuse Comb\\Facades\\Log;\nLog::info('x');\n"),
      ignores("<?php\nuse function Log;\nLog();\n".replace("function Log", "Other\\Log")),
      ignores("<?php\n\\Log();\n"),
      trialsIn("php").ignores("<?php\nuse Log;\nLog::info('x');\n"),
    ],
  });

export const fullName = make(settings.parse({}));
