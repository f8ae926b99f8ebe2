import { condition, holes, isOfTrait, no, python, rule, trialsIn, typeOf, unknown, yes } from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { givenInClass, isSameThroughout, letGoSooner, othersMayGive } from "../family/members.js";

const { lock, ahead, body } = holes({ lock: "expression", ahead: "statements", body: "statements" });
const STRAIGHT = 1;

const LOCK = { what: "lock", methods: ["acquire", "release", "__enter__", "__exit__"] };
/** Is anything done between taking it and the statement that lets it go at its end? */
const isAhead = (match: Match): boolean => match.has(ahead) && match.all(ahead).length > 0;
/** All that is done under the lock. */
const done = (match: Match): SyntaxNode[] => [
  ...(isAhead(match) ? match.all(ahead) : []),
  ...match.all(body),
];
const isNewLock = (value: SyntaxNode): boolean => isOfTrait(value, "lock", LOCK).is === "yes";

/** Is it a lock of the standard library, whose block takes it and lets it go? */
function isLock(match: Match): Answer {
  const node = match.the(lock);
  const type = typeOf(node);
  const given = type ? undefined : givenInClass(node, isNewLock);
  if (given) return given;
  if (type?.module === "asyncio")
    return no("type.is", `${type.why}, whose block must be waited for`, type.at);
  const answer = isOfTrait(node, "lock", LOCK);
  return type && answer.is === "no"
    ? unknown("type.is", `${type.why}, whose block may do something else`, type.at)
    : answer;
}

const { rewrites, holds, ignores } = trialsIn("python");

export const scopedLock = rule({
  id: "python/scoped-lock",
  kind: "idiom",
  title: "Use a with block to hold a lock",
  why: "A lock that is let go by hand stays taken when something in between throws, and the program stands still.",
  was: [
    python`
      ${lock}.acquire()
      ${ahead}
      try:
          ${body}
      finally:
          ${lock}.release()
    `,
    python`
      ${lock}.acquire()
      ${body}
      ${lock}.release()
    `,
  ],
  given: [
    condition("it is a lock of the standard library", isLock, { unknownIs: "possible" }),
    condition("no other class gives it something else", (match) =>
      typeOf(match.the(lock)) ? yes("type.is", "its type is known") : othersMayGive(match.the(lock)),
    ),
    condition("the lock is the same object throughout", (match) =>
      isSameThroughout(match.the(lock), done(match)),
    ),
    condition("the lock is neither taken nor let go meanwhile", (match) => {
      const name = match.textOf(lock);
      const other = done(match)
        .flatMap((one) => [...one.descendants()])
        .find((one) => one.is("attribute") && one.child("object")?.text === name);
      return other
        ? no("flow.written", `\`${other.text}\` is used while the lock is held`, other)
        : yes("flow.written", "it is left alone meanwhile");
    }),
    condition("something is done under the lock", (match) =>
      done(match).length > 0
        ? yes("form.worthwhile", "something is done")
        : no("form.worthwhile", "nothing is done", match.node),
    ),
    letGoSooner(body, (match) => match.alternative === STRAIGHT),
    {
      ...letGoSooner(ahead, () => true),
      when: isAhead,
    },
  ],
  becomes: (match) =>
    isAhead(match)
      ? python`
          with ${lock}:
              ${ahead}
              ${body}
        `
      : python`
          with ${lock}:
              ${body}
        `,
  trials: [
    rewrites(
      `
      import threading
      gate = threading.Lock()
      def count():
          gate.acquire()
          try:
              return total  # so far
          finally:
              gate.release()
      `,
      `
      import threading
      gate = threading.Lock()
      def count():
          with gate:
              return total  # so far
      `,
    ),
    rewrites(
      `
      import threading
      gate = threading.Lock()
      def count():
          gate.acquire()
          n = 1
          note(n)  # first
          try:
              return total
          finally:
              gate.release()
      `,
      `
      import threading
      gate = threading.Lock()
      def count():
          with gate:
              n = 1
              note(n)  # first
              return total
      `,
      "likely",
    ),
    holds(
      `
      def f(gate):
          gate.acquire()
          gate = other()
          try:
              work()
          finally:
              gate.release()
      `,
      "another object",
    ),
    rewrites(
      `
      from threading import RLock
      class Hive:
          def __init__(self):
              self.gate = RLock()
          def add(self):
              self.gate.acquire()
              self.n += 1
              self.gate.release()
      `,
      `
      from threading import RLock
      class Hive:
          def __init__(self):
              self.gate = RLock()
          def add(self):
              with self.gate:
                  self.n += 1
      `,
      "likely",
    ),
    rewrites(
      `
      def add(gate):
          gate.acquire()
          work()
          gate.release()
      `,
      `
      def add(gate):
          with gate:
              work()
      `,
      "possible",
    ),
    holds(
      `
      import asyncio
      gate = asyncio.Lock()
      def f():
          gate.acquire()
          work()
          gate.release()
      `,
      "must be waited for",
    ),
    holds(
      `
      def f(gates):
          gates[0].acquire()
          work()
          gates[0].release()
      `,
      "worked out again",
    ),
    holds(
      `
      def f(gate):
          gate.acquire()
          gate.wait()
          gate.release()
      `,
      "while the lock is held",
    ),
    holds(
      `
      def f(gate):
          gate.acquire()
          gate.release()
      `,
      "nothing is done",
    ),
    ignores(`
      def f(gate):
          gate.acquire(timeout=1)
          work()
          gate.release()
    `),
    ignores(`
      def f(gate):
          if gate.acquire():
              work()
          gate.release()
    `),
    ignores(`
      def f(gate, other):
          gate.acquire()
          work()
          other.release()
    `),
  ],
});
