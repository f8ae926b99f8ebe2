import { condition, holes, no, python, rule, trialsIn, typeOf, unknown, yes } from "../../index.js";
import type { Answer, Match } from "../../index.js";
import { givenInClass, likelyInClass } from "../family/members.js";

const { lock, body } = holes({ lock: "expression", body: "statements" });
const STRAIGHT = 1;

const LOCKS = ["Lock", "RLock", "Condition", "Semaphore", "BoundedSemaphore"];

const MADE = /^(threading\.|multiprocessing\.)?(R?Lock|Condition|(Bounded)?Semaphore)\(/;

/** Is it a lock of the standard library, whose block takes it and lets it go? */
function isLock(match: Match): Answer {
  const node = match.the(lock);
  const type = typeOf(node);
  if (!type && givenInClass(node, MADE)) return yes(`\`${node.text}\` is given a lock in its class`, node);
  if (!type) return unknown(`the type of \`${node.text}\` is not known`, node);
  const isOne = type.module === "threading" || type.module === "multiprocessing";
  if (isOne && LOCKS.includes(type.name)) return yes(type.why, type.at);
  return type.module === "asyncio"
    ? no(`${type.why}, whose block must be waited for`, type.at)
    : unknown(`${type.why}, whose block may do something else`, type.at);
}

const { rewrites, holds, ignores } = trialsIn("python");

export const scopedLock = rule({
  id: "python/scoped-lock",
  kind: "idiom",
  title: "Hold a lock with a with block",
  why: "A lock that is let go by hand stays taken when something in between throws, and the program stands still.",
  was: [
    python`
      ${lock}.acquire()
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
      typeOf(match.the(lock)) ? yes("its type is known") : likelyInClass(match.the(lock), MADE),
    ),
    condition("the lock is the same object throughout", (match) => {
      const node = match.the(lock);
      const called = [...node.descendants()].find((one) => one.is(["call", "subscript"]));
      if (called) return no(`\`${node.text}\` is worked out again where the lock is let go`, called);
      const last = [...node.descendants()].filter((one) => one.isLeaf && one.named).at(-1)!.text;
      const written = match
        .all(body)
        .flatMap((one) => one.mentions(last))
        .find((use) => use.closest(["assignment"])?.child("left")?.holds(use) === true);
      return written
        ? no(`\`${node.text}\` is another object from here on`, written)
        : yes("it is not written meanwhile");
    }),
    condition("the lock is neither taken nor let go meanwhile", (match) => {
      const name = match.textOf(lock);
      const other = match
        .all(body)
        .flatMap((one) => [...one.descendants()])
        .find((one) => one.is("attribute") && one.child("object")?.text === name);
      return other
        ? no(`\`${other.text}\` is used while the lock is held`, other)
        : yes("it is left alone meanwhile");
    }),
    condition("something is done under the lock", (match) =>
      match.all(body).length > 0 ? yes("something is done") : no("nothing is done", match.node),
    ),
    condition("nothing leaves before the lock is let go", (match) => {
      if (match.alternative !== STRAIGHT) return yes("the old code lets it go on every path too");
      const exit = match
        .all(body)
        .flatMap((one) => [...one.descendants()])
        .find((one) => one.is(["return_statement", "break_statement", "continue_statement", "yield"]));
      return exit
        ? unknown(`\`${exit.text}\` left with the lock taken, which may have been meant`, exit)
        : yes("nothing leaves early");
    }),
  ],
  becomes: python`
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
