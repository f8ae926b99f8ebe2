import { holes, languageOf, loadGrammars, parse, switched, type LanguageId } from "uvran/core";
import "uvran/node";

const { subject } = holes({ subject: "expression" });

/** What each switch gives: what is asked, where the values go, the values by their constants. */
async function read(id: LanguageId, code: string): Promise<string[]> {
  const language = languageOf(id);
  await loadGrammars([language]);
  const tree = parse(code, language);
  const reading = switched(subject);
  const kinds = reading.kindsIn(language);
  return [...tree.root.descendants()].flatMap((node) => {
    const found = node.is(kinds) ? reading.readAt(node)?.switched : undefined;
    if (!found) return [];
    const arms = found.arms.map(
      ({ labels, gives }) => `${labels.map(({ text }) => text).join("|") || "else"}: ${gives.text}`,
    );
    return [`${found.subject.text} > ${found.target?.text ?? "return"} ${arms.join(", ")}`];
  });
}

const ways = "case 1: case 2: return a; case 3: return b; default: return c;";
const inClass = (code: string): string => `class A { int f(int x) { ${code} } }`;

test.each<[LanguageId, string, string[]]>([
  ["java", inClass(`switch (x) { ${ways} }`), ["x > return 1|2: a, 3: b, else: c"]],
  ["csharp", inClass(`switch (x) { ${ways} }`), ["x > return 1|2: a, 3: b, else: c"]],
  ["php", `<?php function f($x) { switch ($x) { ${ways} } }`, ["$x > return 1|2: a, 3: b, else: c"]],
  ["javascript", `function f(x) { switch (x) { ${ways} } }`, ["x > return 1|2: a, 3: b, else: c"]],
  ["typescript", `function f(x: number) { switch (x) { ${ways} } }`, ["x > return 1|2: a, 3: b, else: c"]],
  [
    "java",
    inClass("switch (x) { case 1: y = a; break; case 2: { y = b; break; } default: throw e; }"),
    ["x > y 1: a, 2: b, else: throw e;"],
  ],
  [
    "java",
    inClass("switch (x) { case 1: return a; case 2: return b; } return c;"),
    ["x > return 1: a, 2: b, else: c"],
  ],
  [
    "java",
    inClass("switch (x) { default: case 1: return a; case 2: return b; case 3: return c; }"),
    ["x > return 2: b, 3: c, else: a"],
  ],
  // It runs on, leaves something open, or does more than to give a value.
  ["java", inClass("switch (x) { case 1: y = a; case 2: y = b; break; default: y = c; }"), []],
  ["java", inClass("switch (x) { case 1: y = a; break; case 2: y = b; break; } return c;"), []],
  ["java", inClass("switch (x) { case 1: y = a; break; case 2: z = b; break; default: y = c; }"), []],
  ["java", inClass("switch (x) { case 1: g(); return a; case 2: return b; default: return c; }"), []],
  ["java", inClass("switch (x) { case 1: return a; case 2: return; default: return c; }"), []],
  ["csharp", inClass("switch (x) { case int n: return a; case 2: return b; default: return c; }"), []],
])("%s: %s", async (id, code, wanted) => {
  expect(await read(id, code)).toEqual(wanted);
});
