import {
  changesOf,
  condition,
  copy,
  holes,
  ofKind,
  referencesAt,
  referencesOf,
  removal,
  rule,
  trialsIn,
  usesOf,
  weakest,
  yes,
} from "../../../core.js";
import { no } from "../../../core.js";
import type { Answer, Declaration, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { arrowEdits, hasOwn, isOnlyCalled } from "./arrow.js";

const { kept } = holes({
  kept: { kind: "statement", node: ["variable_declaration", "lexical_declaration"] },
});

/** A variable that only keeps `this`. */
interface Kept {
  readonly name: SyntaxNode;
  readonly to: Declaration;
  readonly uses: readonly SyntaxNode[];
}

function keptBy(statement: SyntaxNode): Kept | undefined {
  const [declarator, ...more] = statement.parts;
  const name = declarator?.child("name");
  if (more.length > 0 || !name?.is("identifier") || !declarator!.child("value")?.is("this")) return undefined;
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to || to.at.length !== 1 || !statement.parent?.is("statement_block")) return undefined;
  return { name, to, uses: referencesOf(to).flatMap(({ node }) => (node.same(name) ? [] : [node])) };
}

/** Functions with a `this` of their own between a use and the statement that keeps it, innermost first. */
function functionsAround(use: SyntaxNode, statement: SyntaxNode): SyntaxNode[] {
  const block = statement.parent!;
  return [...use.ancestors()].filter(
    (above) =>
      block.holds(above) &&
      !above.same(block) &&
      above.is([
        "function_expression",
        "function_declaration",
        "generator_function",
        "generator_function_declaration",
        "method_definition",
        "class_body",
      ]),
  );
}

const functionsIn = (statement: SyntaxNode): SyntaxNode[] => {
  const all = keptBy(statement)!.uses.flatMap((use) => functionsAround(use, statement));
  return all.filter((fn, i) => all.findIndex((other) => other.same(fn)) === i);
};

/** The statements from the one that keeps `this` to the last that uses it. */
function together(statement: SyntaxNode): SyntaxNode[] | undefined {
  const found = keptBy(statement);
  if (!found || found.uses.length === 0) return undefined;
  const { parts } = statement.parent!;
  const at = found.uses.map((use) => parts.findIndex((part) => part.holds(use)));
  const first = parts.findIndex((part) => part.same(statement));
  return at.some((i) => i < first) ? undefined : parts.slice(first, Math.max(...at) + 1);
}

/** Can each function on the way be an arrow, in which `this` is the one around? */
function canBeArrows(statement: SyntaxNode): Answer {
  for (const fn of functionsIn(statement)) {
    const code = "value.result";
    if (!fn.is("function_expression") || fn.child("type_parameters"))
      return no(code, `\`${fn.text.split("\n")[0]}\` has a \`this\` of its own`, fn);
    if (fn.child("name")) return no(code, `\`${fn.child("name")!.text}\` may call itself by its name`, fn);
    if (hasOwn(fn, false)) return no(code, "a function in between uses its own `this` or `arguments`", fn);
    const isHandedOn = fn.parent?.is("arguments") && fn.parent.parent?.is("call_expression");
    if (!isHandedOn)
      return no(
        code,
        "a function in between is not handed on to a call, and could be used as a constructor",
        fn,
      );
  }
  return yes("value.result", "every function on the way can be an arrow");
}

function arrows(match: Match): Segment[] {
  const statement = match.the(kept);
  const { uses } = keptBy(statement)!;
  const edits: Edit[] = [
    removal(statement),
    ...uses.map(({ start, end, kind, text }) => ({
      start,
      end,
      text: kind === "shorthand_property_identifier" ? `${text}: this` : "this",
    })),
    ...functionsIn(statement).flatMap(arrowEdits),
  ];
  const [first, last] = [match.nodes[0]!, match.nodes.at(-1)!];
  return [
    copy(
      first.start,
      last.end,
      edits.sort((a, b) => a.start - b.start),
    ),
  ];
}

const js = trialsIn("javascript");

export const keptThis = rule({
  id: "javascript/kept-this",
  kind: "idiom",
  title: "Use arrows instead of keeping this in a variable",
  why: "The reader must remember that two names stand for one object, and which of them may be used where.",
  was: ofKind(kept, { together }),
  mentions: ["this"],
  target: "2015",
  given: [
    condition("the variable keeps nothing else", (match) => {
      const { to, name } = keptBy(match.the(kept))!;
      const written = changesOf(to).find(({ node }) => !node.same(name));
      return written
        ? no("flow.written", `\`${name.text}\` is given another value`, written.node)
        : (usesOf(to).doubts[0] ?? yes("flow.written", `\`${name.text}\` is always the object`));
    }),
    condition("the functions on the way can be arrows", (match) => canBeArrows(match.the(kept))),
    condition("they are only called", (match) => {
      const [first, ...rest] = functionsIn(match.the(kept)).map(isOnlyCalled);
      return first ? weakest([first, ...rest]) : yes("value.result", "no function is on the way");
    }),
  ],
  becomes: arrows,
  trials: [
    js.rewrites(
      `
      class Hive {
        show() {
          var self = this;
          this.jars.forEach(function (jar) {
            self.print(jar);
          });
        }
      }
      `,
      `
      class Hive {
        show() {
          this.jars.forEach((jar) => {
            this.print(jar);
          });
        }
      }
      `,
      "likely",
    ),
    js.rewrites(
      "function f() { var self = this; setTimeout(function () { self.a(); }, 1); }",
      "function f() { setTimeout(() => { this.a(); }, 1); }",
    ),
    js.rewrites(
      `
      function load() {
        const that = this;
        on("x", function (a) { each(a, (b) => that.f(b, { that })); });
        return that;
      }
      `,
      `
      function load() {
        on("x", (a) => { each(a, (b) => this.f(b, { that: this })); });
        return this;
      }
      `,
      "likely",
    ),
    js.holds("function f() { var self = this; g(function () { this.a = self.b; }); }", "its own `this`"),
    js.holds("function f() { var self = this; function h() { self.a(); } g(h); }", "of its own"),
    js.holds("function f() { var self = this; this.h = function () { self.a(); }; }", "not handed on"),
    js.holds("function f() { var self = this; self = g(); self.a(); }", "another value"),
    js.holds(
      "function f() { var self = this; g(function () { return arguments.length + self.a; }); }",
      "its own `this`",
    ),
    js.ignores("function f() { var self = this.a; self.b(); }"),
    js.ignores("var self = this;\nself.a();"),
  ],
});
