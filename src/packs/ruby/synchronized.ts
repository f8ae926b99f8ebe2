import { condition, holes, isOfLibrary, no, ruby, rule, trialsIn, typeOf, unknown, yes } from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { givenInClass, letGoSooner, othersMayGive } from "../family/members.js";
import { endsNoLoop, isNotAskedByName } from "./values.js";

const { lock, ahead, body } = holes({ lock: "expression", ahead: "statements", body: "statements" });
const STRAIGHT = 2;

const MUTEX = {
  names: ["Mutex"],
  module: undefined,
  methods: ["lock", "unlock", "synchronize"],
  what: "mutex",
};
/** Is anything done between taking it and the statement that lets it go at its end? */
const isAhead = (match: Match): boolean => match.has(ahead) && match.all(ahead).length > 0;
/** All that is done under the mutex. */
const done = (match: Match): SyntaxNode[] => [
  ...(isAhead(match) ? match.all(ahead) : []),
  ...match.all(body),
];
const isNewMutex = (value: SyntaxNode): boolean => isOfLibrary(value, MUTEX).is === "yes";

function isMutex(match: Match): Answer {
  const node = match.the(lock);
  const given = typeOf(node) ? undefined : givenInClass(node, isNewMutex);
  return given ?? isOfLibrary(node, MUTEX);
}

const { rewrites, holds, ignores } = trialsIn("ruby");

export const synchronized = rule({
  id: "ruby/synchronized",
  kind: "idiom",
  title: "Use synchronize to hold a mutex",
  why: "A mutex that is let go by hand stays taken when something in between raises.",
  was: [
    ruby`
      ${lock}.lock
      ${ahead}
      begin
        ${body}
      ensure
        ${lock}.unlock
      end
    `,
    ruby`
      begin
        ${lock}.lock
        ${body}
      ensure
        ${lock}.unlock
      end
    `,
    ruby`
      ${lock}.lock
      ${body}
      ${lock}.unlock
    `,
  ],
  given: [
    condition("it is a mutex", isMutex, { unknownIs: "possible" }),
    condition("no other class gives it something else", (match) =>
      typeOf(match.the(lock)) || givenInClass(match.the(lock), isNewMutex)
        ? yes("type.is", "its type is known")
        : othersMayGive(match.the(lock)),
    ),
    condition("the mutex is the same throughout", (match) => {
      const node = match.the(lock);
      if (!node.is(["identifier", "instance_variable", "class_variable", "constant", "global_variable"]))
        return no("flow.written", `\`${node.text}\` is worked out again where the mutex is let go`, node);
      const other = done(match).flatMap((one) => one.mentions(node.text))[0];
      return other
        ? no("flow.written", `\`${node.text}\` is used while it is held`, other)
        : yes("flow.written", "it is left alone meanwhile");
    }),
    endsNoLoop(body),
    letGoSooner(body, (match) => match.alternative === STRAIGHT),
    { ...letGoSooner(ahead, () => true), when: isAhead },
    {
      ...endsNoLoop(ahead),
      when: isAhead,
    },
    condition("nobody asks for its variables by name", isNotAskedByName),
    condition("nothing that is first given a value meanwhile is used afterwards", (match) => {
      const later = done(match)
        .flatMap((one) => [...one.descendants()])
        .filter((node) => node.is("identifier") && node.field === "left")
        .flatMap((node) =>
          match.tree.root.mentions(node.text).filter((use) => use.start >= match.found.end),
        )[0];
      return later
        ? no("name.scope", `\`${later.text}\` is used behind what becomes a block`, later)
        : yes("name.scope", "no value that is first given in it is used afterwards");
    }),
    condition("something is done under the mutex", (match) =>
      done(match).length > 0
        ? yes("form.worthwhile", "something is done")
        : no("form.worthwhile", "nothing is done", match.node),
    ),
    condition("nobody needs what the code comes to", (match) => {
      if (match.alternative !== STRAIGHT)
        return yes("value.result", "the block comes to what `begin` came to");
      const last = match.nodes.at(-1)!;
      return last.parent?.lastPart?.same(last) === true
        ? unknown("value.result", "the last value of the method was that of `unlock`", last)
        : yes("value.result", "something else follows");
    }),
  ],
  becomes: (match) =>
    isAhead(match)
      ? ruby`
          ${lock}.synchronize do
            ${ahead}
            ${body}
          end
        `
      : ruby`
          ${lock}.synchronize do
            ${body}
          end
        `,
  trials: [
    rewrites(
      "gate = Mutex.new\ngate.lock\nbegin\n  count += 1 # bees\nensure\n  gate.unlock\nend\n",
      "gate = Mutex.new\ngate.synchronize do\n  count += 1 # bees\nend\n",
    ),
    rewrites(
      "gate = Mutex.new\ngate.lock\nnote(1)\nbegin\n  count += 1\nensure\n  gate.unlock\nend\n",
      "gate = Mutex.new\ngate.synchronize do\n  note(1)\n  count += 1\nend\n",
      "likely",
    ),
    rewrites(
      "class A\n  def initialize\n    @gate = Mutex.new\n  end\n  def f\n    @gate.lock\n    @n += 1\n    @gate.unlock\n    @n\n  end\nend\n",
      "class A\n  def initialize\n    @gate = Mutex.new\n  end\n  def f\n    @gate.synchronize do\n      @n += 1\n    end\n    @n\n  end\nend\n",
    ),
    holds("gate.lock\nn = 1\ngate.unlock\nputs n\n", "behind what becomes a block"),
    holds("gate().lock\nn += 1\ngate().unlock\n", "worked out again"),
    holds("gate.lock\ngate.sleep\ngate.unlock\n", "while it is held"),
    holds("xs.each do |x|\n  gate.lock\n  next if x\n  gate.unlock\n  y\nend\n", "would end the block"),
    ignores("gate.lock\nn += 1\nother.unlock\n"),
    ignores("gate.lock(1)\nn += 1\ngate.unlock\n"),
  ],
});
