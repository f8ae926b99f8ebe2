import {
  condition,
  copy,
  holes,
  indentUnit,
  no,
  ofKind,
  referencesAt,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { withParentheses } from "../../family/parentheses.js";
import { goesTo, isOfOneType } from "./one-type.js";
import { stepsAt } from "./steps.js";

const { whole } = holes({ whole: { kind: "expression", node: "conditional_expression" } });

const STATEMENT_LISTS = ["block", "switch_section", "global_statement"];

function fits(node: SyntaxNode): boolean {
  const read = stepsAt(node);
  const statement = read && goesTo(node);
  return statement !== undefined && statement.parent?.is(STATEMENT_LISTS) === true;
}

/** A variable whose type nobody writes has none without its first value. */
function hasType(match: Match): Answer {
  const statement = goesTo(match.the(whole))!;
  if (!statement.is("local_declaration_statement")) return yes("type.not-known", "nothing is declared");
  const type = statement.firstPart!.child("type")!;
  if (!type.is("implicit_type")) return yes("type.not-known", `it is declared \`${type.text}\``, type);
  return wouldBe(match) === undefined
    ? no("type.not-known", "nothing says which type the variable has", type)
    : yes("type.not-known", `its values are \`${wouldBe(match)}\``, type);
}

/** The type of all the values, where they are known to have one. */
function wouldBe(match: Match): string | undefined {
  const { steps, otherwise } = stepsAt(match.the(whole))!;
  const types = [...steps.map(({ value }) => value), otherwise].map((one) => typeOf(one));
  const [first] = types;
  return first &&
    types.every((one) => one?.name === first.name) &&
    /^(string|bool|int|long|double|decimal|char|float)$/.test(first.name)
    ? first.name
    : undefined;
}

/** Does the file put an opening brace on a line of its own? */
const isApart = (all: string): boolean =>
  (all.match(/^[ \t]*\{[ \t]*\r?$/gm)?.length ?? 0) >= (all.match(/[^\s{][ \t]*\{[ \t]*\r?$/gm)?.length ?? 0);

function chain(match: Match): Segment[] {
  const node = match.the(whole);
  const { steps, otherwise } = stepsAt(node)!;
  const statement = goesTo(node)!;
  const { tree } = node;
  const indent = tree.indentAt(statement.start);
  const unit = indentUnit(tree, indent);
  const end = tree.text.includes("\r\n") ? "\r\n" : "\n";
  const at = withParentheses(node);
  const declared = statement.is("local_declaration_statement") ? statement.firstPart! : undefined;
  const name = declared?.parts.find((one) => one.is("variable_declarator"))!.child("name")!.text;
  const head = declared ? [text(`${name} = `)] : [copy(statement.start, at.start)];
  const tail = ";";
  const type = declared?.child("type");
  const written = type?.is("implicit_type") ? wouldBe(match)! : (type?.text ?? "");
  const open = isApart(tree.text) ? `${end}${indent}{` : " {";
  const block = (value: SyntaxNode): Segment[] => [
    text(`${open}${end}${indent}${unit}`),
    ...head,
    copy(value.start, value.end),
    text(`${tail}${end}${indent}}`),
  ];
  const between = isApart(tree.text) ? `${end}${indent}else` : " else";
  const result: Segment[] = declared ? [text(`${written} ${name};${end}${indent}`)] : [];
  steps.forEach(({ condition, value }, n) => {
    result.push(
      text(n === 0 ? "if (" : `${between} if (`),
      copy(condition.start, condition.end),
      text(")"),
      ...block(value),
    );
  });
  return [...result, text(between), ...block(otherwise)];
}

/** What is declared within a condition is seen in what follows only as part of one expression. */
function declaresNothing(match: Match): Answer {
  const { steps } = stepsAt(match.the(whole))!;
  for (const { condition } of steps) {
    const declared = [...condition.descendants()].find((one) =>
      one.is(["declaration_pattern", "declaration_expression", "var_pattern", "recursive_pattern"]),
    );
    if (declared)
      return unknown(
        "name.scope",
        `\`${shortened(declared.text)}\` declares a variable, which is seen in more places then`,
        declared,
      );
  }
  const assigned = goesTo(match.the(whole))!;
  const target = assigned.is("expression_statement") ? assigned.firstPart!.child("left") : undefined;
  const called =
    target &&
    [...target.descendants()].find(
      (one) =>
        one.is(["invocation_expression", "element_access_expression"]) ||
        (one.is("member_access_expression") && !referencesAt(one.lastPart!).some(({ to }) => to)),
    );
  return called
    ? unknown(
        "flow.order",
        `\`${shortened(called.text)}\` was reached before the conditions were asked, and is after them now`,
        called,
      )
    : yes("flow.order", "conditions and values come in the same order");
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string, returns = "string"): string =>
  `class A\n{\n    int n;\n    ${returns} F(int a, bool b)\n    {\n        ${code}\n    }\n}\n`;

export const nestedConditional = rule({
  id: "csharp/nested-conditional",
  kind: "smell",
  title: "Use an if chain instead of nested conditional operators",
  why: "Which colon belongs to which question mark is a puzzle; a chain of branches is read from top to bottom.",
  was: ofKind(whole, { when: fits, together: (node) => [goesTo(node)!] }),
  mentions: ["?"],
  given: [
    condition("all values are of one type", (match) => isOfOneType(match.the(whole))),
    condition("a variable that is declared has a type", hasType),
    condition("conditions and values come in the same order", declaresNothing),
  ],
  becomes: chain,
  trials: [
    rewrites(
      inMethod('return a > 1 ? "x" : b ? "y" : "z";'),
      inMethod(
        'if (a > 1)\n        {\n            return "x";\n        }\n        else if (b)\n        {\n            return "y";\n        }\n        else\n        {\n            return "z";\n        }',
      ),
    ),
    rewrites(
      'class A {\n    string F(int a, bool b) {\n        string s = a > 1 ? "x" : (b ? "y" : "z");\n        return s;\n    }\n}\n',
      'class A {\n    string F(int a, bool b) {\n        string s;\n        if (a > 1) {\n            s = "x";\n        } else if (b) {\n            s = "y";\n        } else {\n            s = "z";\n        }\n        return s;\n    }\n}\n',
    ),
    rewrites(
      "class A {\n    void F(int a, bool b) {\n        var s = a > 1 ? 1 : b ? 2 : 3;\n        Use(s);\n    }\n}\n",
      "class A {\n    void F(int a, bool b) {\n        int s;\n        if (a > 1) {\n            s = 1;\n        } else if (b) {\n            s = 2;\n        } else {\n            s = 3;\n        }\n        Use(s);\n    }\n}\n",
    ),
    rewrites(
      "class A {\n    int n;\n    void F(int a, bool b) {\n        n = a > 1 ? 1 : b ? 2 : 3;\n    }\n}\n",
      "class A {\n    int n;\n    void F(int a, bool b) {\n        if (a > 1) {\n            n = 1;\n        } else if (b) {\n            n = 2;\n        } else {\n            n = 3;\n        }\n    }\n}\n",
    ),
    // As objects, 1 and 2.0 are two doubles behind the operator, and an int and a double without it.
    rewrites(
      "class A {\n    object F(int a, bool b) {\n        return a > 1 ? 1 : b ? 2.0 : 3;\n    }\n}\n",
      "class A {\n    object F(int a, bool b) {\n        if (a > 1) {\n            return 1;\n        } else if (b) {\n            return 2.0;\n        } else {\n            return 3;\n        }\n    }\n}\n",
      "likely",
    ),
    holds(inMethod("var s = a > 1 ? Find() : b ? Make() : null;\n        return s;"), "which type"),
    ignores(inMethod('using var s = b ? Open("x") : a > 1 ? Open("y") : null;\n        return "";')),
    ignores(inMethod('return b ? "x" : "y";')),
    ignores(inMethod('Use(a > 1 ? "x" : b ? "y" : "z");\n        return "";')),
    ignores(inMethod('if (b) return a > 1 ? "x" : b ? "y" : "z";\n        return "";')),
    ignores(inMethod('return (b ? a > 1 : a > 2) ? "x" : "z";')),
    ignores('class A { string F(int a, bool b) => a > 1 ? "x" : b ? "y" : "z"; }'),
  ],
});
