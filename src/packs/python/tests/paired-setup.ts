import { holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import { isTestCase } from "./test-case.js";

const { setup } = holes({ setup: { kind: "statement", node: "function_definition" } });

/** What gives back what was acquired. */
const RELEASED = /^(close|stop|release|cleanup|shutdown|terminate|disconnect|quit|__exit__)$/;

interface Pair {
  /** What the object keeps it under. */
  readonly name: string;
  readonly acquired: SyntaxNode;
  readonly released: SyntaxNode;
}

const methodNamed = (owner: SyntaxNode, name: string): SyntaxNode | undefined =>
  owner
    .child("body")!
    .parts.map((part) => (part.is("decorated_definition") ? part.child("definition")! : part))
    .find((part) => part.is("function_definition") && part.child("name")!.text === name);

/** What `setUp` acquires and `tearDown` releases. */
function pairsIn(node: SyntaxNode): Pair[] {
  const owner = node.closest(["class_definition"]);
  const down = owner && methodNamed(owner, "tearDown");
  if (!owner || !down || methodNamed(owner, "setUp")?.same(node) !== true) return [];
  const self = node.child("parameters")?.firstPart?.text;
  return [...node.child("body")!.descendants()].flatMap((assignment): Pair[] => {
    const left = assignment.is("assignment") ? assignment.child("left") : undefined;
    const value = assignment.child("right");
    if (!left?.is("attribute") || left.child("object")!.text !== self || !value?.is("call")) return [];
    const released = [...down.child("body")!.descendants()].find((call) => {
      const callee = call.is("call") ? call.child("function")! : undefined;
      return (
        callee?.is("attribute") === true &&
        callee.child("object")!.text === left.text &&
        RELEASED.test(callee.child("attribute")!.text)
      );
    });
    return released ? [{ name: left.text, acquired: assignment, released }] : [];
  });
}

function adviceFor(match: Match): string {
  const [{ name, acquired, released }] = pairsIn(match.the(setup)) as [Pair];
  const callee = released.child("function")!.text;
  return `\`${name}\` stays open where \`setUp\` fails behind line ${acquired.line}, since \`tearDown\` is not run then: write \`self.addCleanup(${callee})\` right behind it, or from Python 3.11 on \`${name} = self.enterContext(…)\` for what works in a \`with\`.`;
}

const { reports, ignores } = trialsIn("python");
const IN = "import unittest\nclass T(unittest.TestCase):\n";

export const pairedSetup = rule({
  id: "python/paired-setup",
  kind: "smell",
  title: "Release what setUp acquires where it is acquired",
  why: "What tearDown releases stays open when setUp fails half way, and the two drift apart.",
  was: ofKind(setup, {
    when: (node) =>
      node.child("name")!.text === "setUp" &&
      pairsIn(node).length > 0 &&
      isTestCase(node.closest(["class_definition"])!, "addCleanup").is === "yes",
  }),
  mentions: ["tearDown"],
  advice: adviceFor,
  trials: [
    reports(
      `${IN}    def setUp(self):\n        self.file = open("a")\n        self.n = 1\n    def tearDown(self):\n        self.file.close()\n`,
      "self.addCleanup(self.file.close)",
    ),
    reports(
      `${IN}    def setUp(self):\n        if a:\n            self.server = start()\n    def tearDown(self):\n        if self.server:\n            self.server.stop()\n`,
      "where `setUp` fails behind line 5",
    ),
    ignores(
      `${IN}    def setUp(self):\n        self.file = open("a")\n        self.addCleanup(self.file.close)\n`,
    ),
    ignores(
      `${IN}    def setUp(self):\n        self.n = 1\n    def tearDown(self):\n        self.n.close()\n`,
    ),
    ignores(
      'class T(Other):\n    def setUp(self):\n        self.file = open("a")\n    def tearDown(self):\n        self.file.close()\n',
    ),
    ignores('def setUp(self):\n    self.file = open("a")\ndef tearDown(self):\n    self.file.close()\n'),
  ],
});
