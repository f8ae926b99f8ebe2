import {
  caution,
  condition,
  functionAround,
  holes,
  no,
  rule,
  ruby,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { declaredForLater } from "../family/resource.js";
import { endsNoLoop, isReadTwice } from "./values.js";

const { value, item, body } = holes({ value: "expression", item: "name", body: "statements" });

/** Things that `Array()` takes apart. */
function isTakenApart(match: Match): Answer {
  const type = typeOf(match.the(value));
  const name = shortened(match.textOf(value));
  if (!type)
    return unknown(
      "value.kind",
      `\`${name}\` could be a hash, which \`Array()\` turns into pairs`,
      match.node,
    );
  return ["Array", "String", "NilClass", "Integer", "Symbol"].includes(type.name)
    ? yes("value.kind", type.why, type.at)
    : no("value.kind", `${type.why}, which \`Array()\` takes apart`, type.at);
}

function isSameMethod(match: Match, node: SyntaxNode): boolean {
  const around = functionAround(match.node);
  return around ? around.holds(node) : functionAround(node) === undefined;
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const asList = rule({
  id: "ruby/as-list",
  kind: "idiom",
  title: "Use Array() to make a list of one value or several",
  why: "One path for a list, one for a single thing and one for nothing say the same thing three times.",
  was: [
    ruby.expression`${value}.nil? ? [] : (${value}.is_a?(Array) ? ${value} : [${value}])`,
    ruby.expression`${value}.is_a?(Array) ? ${value} : (${value}.nil? ? [] : [${value}])`,
    ruby`
      if ${value}.is_a?(Array)
        ${value}.each do |${item}|
          ${body}
        end
      elsif ${value}
        ${item} = ${value}
        ${body}
      end
    `,
  ],
  given: [
    condition("evaluating the value once makes no difference", (match) => isReadTwice(match.the(value))),
    condition("nothing that is first named in the loop is used afterwards", (match) => {
      if (!match.has(body)) return yes("name.scope", "there is no loop");
      const later = declaredForLater(match, body);
      const name = match.textOf(item);
      const use =
        later?.use ??
        match.tree.root
          .mentions(name)
          .find((one) => one.start >= match.found.end && isSameMethod(match, one));
      return use
        ? no("name.scope", `\`${use.text}\` is used behind what becomes a block`, use)
        : yes("name.scope", "what is named in the loop is used only there");
    }),
    endsNoLoop(body),
    condition("the value is a list, nothing, or one thing that is no hash", isTakenApart),
  ],
  cautions: (match) => {
    const name = shortened(match.textOf(value));
    return isTakenApart(match).is === "yes"
      ? []
      : [
          caution(
            "value.kind",
            `when \`${name}\` is a hash, the old code took it for one thing and the new one for a list of pairs`,
          ),
        ];
  },
  becomes: (match) =>
    match.has(body)
      ? ruby`
          Array(${value}).each do |${item}|
            ${body}
          end
        `
      : ruby`Array(${value})`,
  trials: [
    rewrites(
      "def f(x)\n  x.nil? ? [] : (x.is_a?(Array) ? x : [x])\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  x.is_a?(Array) ? x : (x.nil? ? [] : [x])\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites("x = 'a'\ny = x.is_a?(Array) ? x : (x.nil? ? [] : [x])\n", "x = 'a'\ny = Array(x)\n"),
    rewrites(
      `
      def f(lots)
        if lots.is_a?(Array)
          lots.each do |lot|
            weigh(lot)
          end
        elsif lots
          lot = lots
          weigh(lot)
        end
      end
      `,
      `
      def f(lots)
        Array(lots).each do |lot|
          weigh(lot)
        end
      end
      `,
      "likely",
    ),
    holds("x = { a: 1 }\ny = x.is_a?(Array) ? x : (x.nil? ? [] : [x])\n", "takes apart"),
    holds("y = g(1).is_a?(Array) ? g(1) : (g(1).nil? ? [] : [g(1)])\n", "once instead of twice"),
    ignores("y = x.is_a?(Array) ? x : [y]\n"),
    // One thing and nothing are told apart here.
    ignores("y = x.is_a?(Array) ? x : [x]\n"),
    ignores("y = x.is_a?(Hash) ? x : (x.nil? ? [] : [x])\n"),
  ],
});
