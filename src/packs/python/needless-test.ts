import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "identifier" } });
const { reports, ignores } = trialsIn("python");

export const needlessTest = needlessTestRule({
  id: "python/needless-test",
  what,
  trials: [
    reports("def f():\n    h = [1]\n    if h is not None:\n        h.sort()\n", "always true"),
    reports(
      "def f(h):\n    if h is None:\n        return\n    g()\n    if h is None:\n        g()\n",
      "always false",
    ),
    ignores("def f(h):\n    if h is not None:\n        h.open()\n"),
    ignores("def f(h):\n    if h is None:\n        h = find()\n    if h is None:\n        g()\n"),
    ignores("h = Hive()\ndef f():\n    if h is not None:\n        h.open()\n"),
    ignores("def f(h):\n    while h is not None:\n        h = h.next\n"),
    // None has attributes too.
    ignores("def f(h):\n    h.__class__\n    return h is None\n"),
    ignores("def f(hs):\n    h = None\n    for h in hs:\n        pass\n    return h is None\n"),
  ],
});
