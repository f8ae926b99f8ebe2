import { z } from "zod";
import {
  condition,
  copy,
  holes,
  isDefinedInProject,
  need,
  no,
  ofKind,
  options,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Rule, Segment, SyntaxNode } from "../../../core.js";

const { call } = holes({ call: { kind: "expression", node: "function_call_expression" } });

const settings = z.object({
  functions: z
    .record(z.string(), z.string().regex(/^[\w\\]+::\w+$/))
    .default({})
    .describe(
      "global functions by their names, with the static methods that they are now: `Comb\\Lists::get`",
    ),
});
type Settings = z.output<typeof settings>;

/** The static method that a function is now, by its parts. */
function methodOf(node: SyntaxNode, { functions }: Settings) {
  const name = node.child("function");
  const to = name?.is(["name", "qualified_name"]) ? functions[name.text.replace(/^\\/, "")] : undefined;
  const [, module = "", type = "", method = ""] = /^(?:\\?(.*)\\)?([^\\]+)::(\w+)$/.exec(to ?? "") ?? [];
  return to === undefined ? undefined : { module, type, method };
}

const { rewrites, holds, ignores } = trialsIn("php", undefined, {
  functions: { list_get: "Comb\\Support\\Lists::get", text_slug: "Comb\\Text::slug" },
});

const make = (set: Settings): Rule =>
  rule({
    id: "php/helper-class",
    kind: "deprecated",
    title: "Call the static method that a global helper has become",
    why: "Global helpers go from one version to the next, and clash with those of other packages.",
    taste: true,
    was: ofKind(call, { when: (node) => methodOf(node, set) !== undefined }),
    mentions: ["("],
    options: options(settings, make),
    given: [
      condition("the helper is the framework's", (match) => {
        const name = match.the(call).child("function")!.text.replace(/^\\/, "");
        return isDefinedInProject(name, match.tree)
          ? no("name.library", `the project defines \`${name}\` itself`, match.node)
          : yes("name.library", `the project defines no \`${name}\` itself`);
      }),
    ],
    becomes: (match): Segment[] => {
      const { module, type, method } = methodOf(match.the(call), set)!;
      const list = match.the(call).child("arguments")!;
      return [text(`${match.nameOf(need(module, type))}::${method}`), copy(list.start, list.end)];
    },
    trials: [
      rewrites(
        "<?php\nnamespace Shop;\n\n$a = list_get($jars, 'age', 1);\n",
        "<?php\nnamespace Shop;\n\nuse Comb\\Support\\Lists;\n\n$a = Lists::get($jars, 'age', 1);\n",
      ),
      rewrites(
        "<?php\nnamespace Shop;\n\nuse Comb\\Text as T;\n\n$a = \\text_slug(list_get($jars, 'age'));\n",
        "<?php\nnamespace Shop;\n\nuse Comb\\Text as T;\nuse Comb\\Support\\Lists;\n\n$a = T::slug(Lists::get($jars, 'age'));\n",
      ),
      holds("<?php\nfunction list_get($a) { return 1; }\n$a = list_get($jars);\n", "itself"),
      ignores("<?php\n$a = $this->list_get($jars);\n"),
      ignores("<?php\n$a = Lists::list_get($jars);\n"),
      ignores("<?php\n$a = list_set($jars);\n"),
      trialsIn("php").ignores("<?php\n$a = list_get($jars);\n"),
    ],
  });

export const helperClass = make(settings.parse({}));
