/**
 * How well `prove` finds wrong changes among right ones, on a Java library that nobody here wrote:
 *
 *   npx jiti bench/prove.ts SOURCES [--changes N] [--jars PATH:PATH] [--at-once N]
 *
 * SOURCES is the `src` folder of Commons Collections 4.2 (Debian's `apt-get source libcommons-collections4-java`); the jars
 * are JUnit 4, Hamcrest and EasyMock (`junit4 libhamcrest-java libeasymock-java libcommons-lang3-java`). Takes the changes that the shipped rules
 * and a few of the bench's own propose, plants ten wrong ones among them, of the kinds that people fear, and proves them by
 * the compiler and by the library's tests. Prints which were found, which right ones were lost, and how many runs it took
 * against one by one and against what no search could do with less.
 */
import { cpSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { hashText, holes, java, rule, trialsIn, type Rule } from "uvran/core";
import { loadProject, storePlan, type Check } from "uvran/node";
import { Workspace } from "uvran/workspace";
import type { PlanChange } from "../dist/plan/index.js";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    changes: { type: "string", default: "500" },
    jars: {
      type: "string",
      default:
        "/usr/share/java/junit4.jar:/usr/share/java/hamcrest.jar:/usr/share/java/easymock.jar:/usr/share/java/commons-lang3.jar",
    },
    "at-once": { type: "string", default: "1" },
  },
});

const { rewrites } = trialsIn("java");
const { x } = holes({ x: "expression" });

/** Tests that say the same in fewer words: right wherever they compile. */
function shorter(
  id: string,
  was: Rule["was"],
  becomes: Rule["becomes"],
  before: string,
  after: string,
): Rule {
  return rule({
    id: `bench/${id}`,
    kind: "idiom",
    title: "Say what is expected",
    why: "The name says it.",
    was,
    becomes,
    trials: [rewrites(before, after, "possible")],
  } as Parameters<typeof rule>[0]);
}
const own = [
  shorter(
    "true",
    java`assertEquals(true, ${x})`,
    java`assertTrue(${x})`,
    "f(assertEquals(true, a));",
    "f(assertTrue(a));",
  ),
  shorter(
    "false",
    java`assertEquals(false, ${x})`,
    java`assertFalse(${x})`,
    "f(assertEquals(false, a));",
    "f(assertFalse(a));",
  ),
];

/** Wrong changes: a file of the library, what stands there once, and what somebody made of it. */
const MAIN = "src/main/java/org/apache/commons/collections4";
const PLANTED: readonly (readonly [kind: string, file: string, was: string, now: string])[] = [
  ["a misspelt name", "list/FixedSizeList.java", "decorated().lastIndexOf(", "decorated().lastIndexof("],
  [
    "a method that is gone, used elsewhere",
    "keyvalue/MultiKey.java",
    "    public int size() {\n        return keys.length;\n    }\n",
    "",
  ],
  [
    "a name that is not in scope",
    "queue/CircularFifoQueue.java",
    "size = full ? maxElements : 0",
    "size = full ? capacity : 0",
  ],
  [
    "a value of another type",
    "iterators/ArrayIterator.java",
    "return index < endIndex;",
    "return index < endIndex ? 1 : 0;",
  ],
  [
    "one off",
    "iterators/ObjectArrayIterator.java",
    "return this.index < this.endIndex;",
    "return this.index + 1 < this.endIndex;",
  ],
  [
    "another default",
    "keyvalue/AbstractMapEntry.java",
    "(getValue() == null ? 0 :",
    "(getValue() == null ? 1 :",
  ],
  [
    "a crash of another name",
    "list/FixedSizeList.java",
    "    public void clear() {\n        throw new UnsupportedOperationException(",
    "    public void clear() {\n        throw new IllegalStateException(",
  ],
  [
    "the tail dropped",
    "bag/AbstractMapBag.java",
    "return itemCount > 0 || entryIterator.hasNext();",
    "return entryIterator.hasNext();",
  ],
  [
    "two ways changed for each other",
    "comparators/BooleanComparator.java",
    "(v1 ^ trueFirst) ? 1 : -1",
    "(v1 ^ trueFirst) ? -1 : 1",
  ],
  ["a term forgotten", "bag/AbstractMapBag.java", "size += nCopies;", "size += 1;"],
];

const sources = resolve(positionals[0] ?? "src");
const root = mkdtempSync(join(tmpdir(), "uvran-prove-"));
cpSync(sources, join(root, "src"), { recursive: true });

const tested = ["bag", "comparators", "iterators", "keyvalue", "list", "queue"];
const compile = `javac --release 8 -Xmaxerrs 2000 -nowarn -encoding UTF-8 -cp ${values.jars}`;
const checks: Check[] = [
  { name: "compiles", run: `mkdir out && ${compile} -d out $(find src -name '*.java')`, compare: "messages" },
  {
    name: "tests",
    // Only what changed since the last run is compiled again.
    run:
      "mkdir -p warm; touch warm/.now; " +
      "changed=$(if test -e warm/.last; then find src -name '*.java' -newer warm/.last; else find src -name '*.java'; fi); " +
      `{ test -z "$changed" || ${compile}:warm -d warm $changed; } && mv warm/.now warm/.last && ` +
      `java -cp ${values.jars}:warm:src/test/resources org.junit.runner.JUnitCore ` +
      `$(cd src/test/java && find ${tested.map((one) => `org/apache/commons/collections4/${one}`).join(" ")} ` +
      "-name '*Test.java' ! -name 'Abstract*' | sort | sed 's/.java$//; s#/#.#g')",
    compare: "tests",
    ignore: ["^Time: .*$", "^\\tat .*$"],
    keeps: ["warm/"],
    seconds: 300,
  },
];

const project = await loadProject(root);
const workspace = new Workspace({
  ...project,
  rules: [...project.rules, ...own],
  targets: { java: "8" },
  checks,
});
const { plan } = await workspace.propose();

const planted = PLANTED.map(([kind, file, was, now]): PlanChange => {
  const path = `${MAIN}/${file}`;
  const text = readFileSync(join(root, path), "utf8");
  const start = text.indexOf(was);
  if (start < 0 || text.includes(was, start + 1))
    throw new Error(`${path} does not have this just once: ${was}`);
  const line = text.slice(0, start).split("\n").length;
  plan.files[path] = hashText(text);
  return {
    id: hashText(kind).slice(0, 16),
    rules: ["bench/planted"],
    title: kind,
    kind: "idiom",
    trust: "likely",
    path,
    line,
    range: { start: { line, column: 1 }, end: { line, column: 2 } },
    evidence: [],
    cautions: [],
    notes: [],
    edits: [{ start, end: start + was.length, text: now }],
    elsewhere: [],
    needs: [],
  };
});

// Every so many, so that all rules and files are among them.
const wanted = Number(values.changes) - planted.length;
// The bench's own rules do not look whether the names are others' there.
const proposed = plan.changes.filter(({ path }) => !/PredicateUtilsTest|MapUtilsTest/.test(path));
const right = proposed.filter(
  (_, i, { length }) => Math.floor(((i + 1) * wanted) / length) > Math.floor((i * wanted) / length),
);
const all = {
  ...plan,
  changes: [...right, ...planted].sort((a, b) =>
    a.path < b.path ? -1 : a.path > b.path ? 1 : a.line - b.line,
  ),
};
storePlan(root, all);
console.log(
  `${right.length} proposed changes and ${planted.length} planted ones in ${Object.keys(plan.files).length} files`,
);

const started = Date.now();
const { proofs, setAside, final, runs, kept, unsettled } = await workspace.prove(
  await workspace.sides({ trust: "possible" }),
  { atOnce: Number(values["at-once"]) },
);
for (const { check, compared, before } of proofs)
  console.log(`${check.name}: ${compared.summary}, ${(before.milliseconds / 1000).toFixed(1)} s a run`);
const isPlanted = (id: string): boolean => planted.some((one) => one.id === id);
for (const { title, id } of planted)
  console.log(`${setAside.some(({ change }) => change.id === id) ? "found  " : "MISSED "} ${title}`);
for (const { change, check, lines } of setAside)
  if (!isPlanted(change.id))
    console.log(
      `set aside, and not planted: ${change.path}:${change.line} ${change.rules.join(" + ")} (${change.trust})\n  ${check}: ${lines[0]}`,
    );
const n = all.changes.length;
const least = Array.from({ length: setAside.length }, (_, i) => Math.log2((n - i) / (i + 1))).reduce(
  (a, b) => a + b,
  0,
);
console.log(
  `${setAside.length} of ${n} set aside, ${kept.length} kept; with them: ${final.map(({ check, verdict }) => `${check.name} ${verdict}`).join(", ")}`,
  unsettled,
);
console.log(
  `${runs} runs of checks in ${((Date.now() - started) / 1000).toFixed(0)} s. One by one: ${2 * n}; a search that only hears yes or no: at least ${Math.ceil(least)}.`,
);
