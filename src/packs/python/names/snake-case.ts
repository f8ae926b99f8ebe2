import { holes, python, renamed, rule, trialsIn } from "../../../core.js";

const { name, parameters, body } = holes({
  name: { kind: "name", text: /^_*[a-z][a-z0-9]*[A-Z]\w*$/ },
  parameters: "parameters",
  body: "statements",
});

/** `countFrames` as `count_frames`, and `readHTMLPage` as `read_html_page`. */
function snakeCase(camel: string): string {
  return camel
    .replace(/([A-Z]+)([A-Z][a-z])/g, "$1_$2")
    .replace(/([a-z\d])([A-Z])/g, "$1_$2")
    .toLowerCase();
}

/** Methods that a library calls by their names keep them. */
const CALLED_BY_LIBRARIES =
  /^_*(setUp|tearDown|setUpClass|tearDownClass|setUpModule|tearDownModule|addCleanup|runTest|do[A-Z]+|do_[A-Z]+|startElement|endElement|startDocument|endDocument|startPrefixMapping|processingInstruction|ignorableWhitespace|skippedEntity|setDocumentLocator|shortDescription|maxDiff|longMessage|countTestCases|defaultTestResult|logMessage|formatTime|formatException|formatStack|getMessage|makeRecord|isEnabledFor|asyncSetUp|asyncTearDown|visit\w*|generic_visit|handle\w*)$/;

const { rewrites, ignores, holds } = trialsIn("python");

export const snakeCaseFunction = rule({
  id: "python/snake-case",
  kind: "idiom",
  taste: true,
  title: "Name functions in lower case with underscores",
  why: "Names of two kinds side by side make every reader look up which is which.",
  was: python`
    def ${name}(${parameters}):
        ${body}
  `,
  where: [(match) => !CALLED_BY_LIBRARIES.test(match.textOf(name))],
  uses: renamed(name, (match) => snakeCase(match.textOf(name))),
  trials: [
    rewrites(
      "def countFrames(hive):\n    return 1\n\n\nprint(countFrames(2))\n",
      "def count_frames(hive):\n    return 1\n\n\nprint(count_frames(2))\n",
      "likely",
    ),
    rewrites(
      "def f():\n    def readHTMLPage():\n        return 1\n    return readHTMLPage()\n",
      "def f():\n    def read_html_page():\n        return 1\n    return read_html_page()\n",
      "likely",
    ),
    holds(
      "def countFrames():\n    count_frames = 1\n    return count_frames\n\n\ncount_frames = 3\n",
      "count_frames",
    ),
    ignores("def count_frames():\n    return 1\n"),
    ignores("class T:\n    def setUp(self):\n        pass\n"),
    ignores("class Hive:\n    pass\n"),
  ],
});
