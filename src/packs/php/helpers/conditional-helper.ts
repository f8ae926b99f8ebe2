import { z } from "zod";
import {
  condition,
  copy,
  holes,
  isDefinedInProject,
  mayRunAnyway,
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
import { withoutParentheses } from "../../family/parentheses.js";

const { branch } = holes({ branch: { kind: "statement", node: "if_statement" } });

const settings = z.object({
  helpers: z
    .record(z.string(), z.object({ if: z.string().optional(), unless: z.string().optional() }).strict())
    .default({})
    .describe(
      "functions by their names, with the functions that take the condition first: for what is true, for what is not",
    ),
});
type Settings = z.output<typeof settings>;

interface Found {
  readonly call: SyntaxNode;
  /** What the new function is asked. */
  readonly test: SyntaxNode;
  readonly isTurned: boolean;
  readonly helper: string;
}

function foundAt(node: SyntaxNode, { helpers }: Settings): Found | undefined {
  const parts = node.parts.filter(
    (part) => part.field === "alternative" || part.is(["else_clause", "else_if_clause"]),
  );
  const body = node.child("body");
  const only = body?.is("compound_statement") ? (body.parts.length === 1 ? body.firstPart : undefined) : body;
  const call = only?.is("expression_statement") ? only.firstPart : undefined;
  const condition = node.child("condition");
  if (parts.length > 0 || !condition || !call?.is("function_call_expression")) return undefined;
  const forms = helpers[call.child("function")!.text.replace(/^\\/, "")];
  if (!forms) return undefined;
  const test = withoutParentheses(condition);
  const inner = test.is("unary_op_expression") && test.has("!") ? test.child("argument") : undefined;
  if (inner && forms.unless !== undefined)
    return { call, test: withoutParentheses(inner), isTurned: true, helper: forms.unless };
  return forms.if === undefined ? undefined : { call, test, isTurned: false, helper: forms.if };
}

/** What is handed over was worked out only where the condition held, and is worked out always now. */
function costsNothing(found: Found): Answer {
  for (const argument of found.call.child("arguments")!.parts) {
    const value = argument.is("argument") ? argument.lastPart! : argument;
    const free = mayRunAnyway(value);
    if (free.is === "no")
      return no("effect.could-fail", `\`${shortened(value.text)}\` would be worked out every time`, value);
    if (free.is === "unknown") return free;
  }
  return yes("effect.could-fail", "what is handed over costs nothing");
}

const TRUTHS = /^(==|!=|===|!==|<>|<|>|<=|>=|&&|\|\||and|or|xor|instanceof)$/;

/** A function may be strict about what it takes as a condition. */
function isTruth({ test }: Found): Answer {
  const isPlain =
    (test.is("binary_expression") && TRUTHS.test(test.child("operator")?.text ?? "")) ||
    (test.is("unary_op_expression") && test.has("!")) ||
    test.is("boolean") ||
    typeOf(test)?.name === "bool" ||
    /^(isset|empty)\s*\(/.test(test.text);
  return isPlain
    ? yes("type.is", `\`${shortened(test.text)}\` is true or false`, test)
    : unknown(
        "type.is",
        `\`${shortened(test.text)}\` could be no boolean, which a strict function does not take`,
        test,
      );
}

const { rewrites, holds, ignores } = trialsIn("php", undefined, {
  helpers: { refuse: { if: "refuse_if", unless: "refuse_unless" }, report: { if: "report_if" } },
});
const php = (code: string): string => `<?php\n${code}\n`;

const make = (set: Settings): Rule =>
  rule({
    id: "php/conditional-helper",
    kind: "idiom",
    title: "Use the helper that takes the condition",
    why: "Three lines for one call under a condition hide how many conditions a function really has.",
    taste: true,
    was: ofKind(branch, { when: (node) => foundAt(node, set) !== undefined, together: (node) => [node] }),
    mentions: ["if"],
    options: options(settings, make),
    given: [
      condition("what is handed over costs nothing", (match) =>
        costsNothing(foundAt(match.the(branch), set)!),
      ),
      condition("the condition is true or false", (match) => isTruth(foundAt(match.the(branch), set)!)),
      condition("the helper is the framework's", (match) => {
        const { call } = foundAt(match.the(branch), set)!;
        const own = isDefinedInProject(call.child("function")!.text, match.tree);
        return own ?? yes("name.library", "the project defines no such function itself");
      }),
    ],
    becomes: (match): Segment[] => {
      const { call, test, helper } = foundAt(match.the(branch), set)!;
      const list = call.child("arguments")!;
      const rest = list.parts.length > 0 ? [text(", "), copy(list.firstPart!.start, list.lastPart!.end)] : [];
      const lead = call.child("function")!.text.startsWith("\\") ? "\\" : "";
      return [text(`${lead}${helper}(`), copy(test.start, test.end), ...rest, text(");")];
    },
    trials: [
      rewrites(php("if ($n > 1) {\n    refuse(404, 'none');\n}"), php("refuse_if($n > 1, 404, 'none');")),
      rewrites(
        php("if (! $hive->isFull()) refuse(404);"),
        php("refuse_unless($hive->isFull(), 404);"),
        "likely",
      ),
      rewrites(php("if (!isset($n)) report();"), php("report_if(!isset($n));")),
      rewrites(php("if ($n) { refuse(404); }"), php("refuse_if($n, 404);"), "likely"),
      rewrites(
        php("if ($a === 1) {\n    // Not here.\n    \\refuse(404);\n}"),
        php("// Not here.\n\\refuse_if($a === 1, 404);"),
      ),
      holds(php("if ($n > 1) { refuse(404, send($n)); }"), "every time"),
      rewrites(php("if (is_null($n)) refuse(404);"), php("refuse_if(is_null($n), 404);")),
      rewrites(php("if (is_full($n)) refuse(404);"), php("refuse_if(is_full($n), 404);"), "likely"),
      ignores(php("if ($n > 1) { refuse(404); } else { go(); }")),
      ignores(php("if ($n > 1) { refuse(404); go(); }")),
      ignores(php("if ($n > 1) { $this->refuse(404); }")),
      ignores(php("if ($n > 1) { other(404); }")),
      trialsIn("php").ignores(php("if ($n > 1) { refuse(404); }")),
    ],
  });

export const conditionalHelper = make(settings.parse({}));
