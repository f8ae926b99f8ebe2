import {
  caution,
  condition,
  csharp,
  holes,
  nameInFile,
  rule,
  scoped,
  targetAllows,
  trialsIn,
} from "../../core.js";
import type { Handle, Match, ReleaseForm, Rule } from "../../core.js";
import { calleeOf, handleOf, rowsFor } from "../family/handles.js";
import {
  blockConditions,
  failsTheSame,
  isReleasedAnyway,
  scopedCautions,
  soonerCaution,
  soonerNote,
  unprotectedIn,
  type Releasing,
} from "../family/resource.js";
import { isDisposable, isNeverNull, isUnseen, looksDisposable } from "./disposable.js";

const { type, name, made, body } = holes({
  type: "type",
  name: "name",
  made: "expression",
  body: "statements",
});
const HOLES = { name, body };

const FORMS: readonly (ReleaseForm & { readonly released: "Dispose" | "Close" })[] = [
  { released: "Dispose", code: csharp`${name}.Dispose();` },
  { released: "Dispose", code: csharp`${name}?.Dispose();` },
  { released: "Dispose", code: csharp`((IDisposable)${name}).Dispose();` },
  { released: "Close", code: csharp`${name}.Close();` },
  { released: "Close", code: csharp`${name}?.Close();` },
];
const releasedBy = (match: Match): "Dispose" | "Close" =>
  FORMS.find(({ code }) => code === match.resource.release.form.code)!.released;

/**
 * May the block go, so that the resource is held to the end of the block around? Where the code stands last in a
 * plain block, where the language is new enough, and where no name of the body is taken around it.
 */
function endsItsBlock(match: Match): boolean {
  if (!targetAllows("8", match)) return false;
  const last = match.nodes.at(-1)!;
  const block = last.parent;
  if (match.resource.after.length > 0 || match.resource.guard?.more.length) return false;
  if (!block?.is("block") || !block.lastPart?.same(last)) return false;
  return match.all(body).every((statement) =>
    [...statement.descendants()].every((node) => {
      if (!node.is("identifier")) return true;
      const { references, declarations } = nameInFile(node.text, match.tree);
      const isDeclaredHere = declarations.some(({ at }) => at.some((one) => statement.holds(one)));
      return (
        !isDeclaredHere ||
        references.every(
          (one) => one.member || !around(match)?.holds(one.node) || within(match, one.node.start),
        )
      );
    }),
  );
}

const within = (match: Match, at: number): boolean =>
  match.all(body).some((one) => one.start <= at && at < one.end);
const around = (match: Match) =>
  [...match.node.ancestors()].find((node) => node.is(node.tree.language.functions));

const { rewrites, holds, ignores } = trialsIn("csharp");
const modern = trialsIn("csharp", "8");
const inMethod = (code: string): string =>
  `using System.IO;\n\nclass Hives\n{\n    string Read(string path)\n    {\n        ${code}\n    }\n}\n`;
const lines = (...code: string[]): string => inMethod(code.join("\n        "));

function scopedResourceWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("csharp", [], own);
  const releasing: Releasing = {
    unprotected: unprotectedIn,
    isUnseen: (match) => handleOf(rows, match.the(made))?.row.unseen ?? isUnseen(match, match.the(made)),
  };
  return rule({
    id: "csharp/scoped-resource",
    kind: "idiom",
    title: "Use a using statement instead of disposing by hand",
    why: "What is disposed of by hand stays open when something in between throws or returns early.",
    withHandles: scopedResourceWith,
    mentions: ["Dispose", "Close"],
    was: scoped({
      name,
      made,
      body,
      acquire: [csharp`${type} ${name} = ${made};`],
      later: { declare: csharp`${type} ${name} = null;`, acquire: csharp`${name} = ${made};` },
      release: FORMS,
      hides: true,
      guesses: true,
      acquires: (value) => calleeOf(value) !== undefined && looksDisposable(value, rows),
    }),
    given: [
      condition(
        "its type can be disposed of",
        (match) => isDisposable(match, match.the(type), match.the(made), rows, releasedBy(match)),
        { unknownIs: "possible" },
      ),
      ...blockConditions(
        HOLES,
        releasing,
        (use) =>
          use.field === "expression" && /^(Dispose|Close)$/.test(use.parent?.child("name")?.text ?? ""),
      ),
      failsTheSame({ ...HOLES, made }),
      condition("what is released is no missing value", (match) => isNeverNull(match.the(made)), {
        when: isReleasedAnyway,
      }),
    ],
    cautions: (match) => [
      ...soonerCaution(match, HOLES, releasing),
      ...scopedCautions(match, HOLES),
      ...(releasedBy(match) === "Close" &&
      isDisposable(match, match.the(type), match.the(made), rows, "Close").is !== "yes"
        ? [
            caution(
              "resource.same-release",
              `the end of the block calls \`Dispose\` where the old code called \`Close\``,
            ),
          ]
        : []),
    ],
    notes: (match) => soonerNote(match, HOLES, releasing),
    becomes: (match) =>
      endsItsBlock(match)
        ? csharp.statement`
            using ${type} ${name} = ${made};
            ${body}
          `
        : csharp`
            using (${type} ${name} = ${made})
            {
              ${body}
            }
          `,
    trials: [
      rewrites(
        lines(
          "var reader = new StreamReader(path);",
          "try",
          "{",
          "    return reader.ReadLine(); // the first",
          "}",
          "finally",
          "{",
          "    reader.Dispose();",
          "}",
        ),
        lines(
          "using (var reader = new StreamReader(path))",
          "{",
          "    return reader.ReadLine(); // the first",
          "}",
        ),
      ),
      modern.rewrites(
        lines(
          "StreamReader reader = null;",
          "try",
          "{",
          "    reader = new StreamReader(path);",
          "    return reader.ReadLine();",
          "}",
          "finally",
          "{",
          "    if (reader != null) reader.Close();",
          "}",
        ),
        lines("using StreamReader reader = new StreamReader(path);", "return reader.ReadLine();"),
      ),
      rewrites(
        lines("var writer = new StreamWriter(path);", "writer.Write(1);", "writer.Close();", "return path;"),
        lines(
          "using (var writer = new StreamWriter(path))",
          "{",
          "    writer.Write(1);",
          "}",
          "return path;",
        ),
      ),
      rewrites(
        lines(
          "var smoker = Smoker.Light();",
          "try",
          "{",
          "    return smoker.ToString();",
          "}",
          "finally",
          "{",
          "    smoker?.Dispose();",
          "}",
        ),
        lines("using (var smoker = Smoker.Light())", "{", "    return smoker.ToString();", "}"),
        "possible",
      ),
      holds(
        "class Smoker { public void Dispose() {} }\nclass A { void F() { var s = new Smoker(); try { s.Puff(); } finally { s.Dispose(); } } }\n",
        "cannot be disposed of",
      ),
      rewrites(
        "class Smoker : IDisposable { public void Dispose() {} }\nclass A { void F() { var s = new Smoker(); try { s.Puff(); } finally { s.Dispose(); } } }\n",
        "class Smoker : IDisposable { public void Dispose() {} }\nclass A { void F() { using (var s = new Smoker())\n{ s.Puff(); } } }\n",
      ),
      holds(
        lines(
          "Stream s = File.OpenRead(path);",
          "try { s = new BufferedStream(s); s.ReadByte(); } finally { s.Dispose(); }",
        ),
        "acquired anew",
      ),
      holds(
        lines(
          "Stream s = File.OpenRead(path);",
          "try { s.ReadByte(); } finally { s.Dispose(); }",
          "return s.ToString();",
        ),
        "outside",
      ),
      holds(
        lines("Stream s = File.OpenRead(path);", "this.s = s;", "s.ReadByte();", "s.Dispose();"),
        "is stored",
      ),
      holds(
        lines(
          "Stream s = File.OpenRead(path);",
          "if (path == null) return Wrap(s);",
          "s.ReadByte();",
          "s.Dispose();",
        ),
        "handed on",
      ),
      // What is used later is declared ahead.
      rewrites(
        lines(
          "Stream s = File.OpenRead(path);",
          "int n = s.ReadByte();",
          'var text = "";',
          "s.Dispose();",
          "return n.ToString() + text;",
        ),
        lines(
          "int n;",
          'var text = "";',
          "using (Stream s = File.OpenRead(path))",
          "{",
          "    n = s.ReadByte();",
          "}",
          "return n.ToString() + text;",
        ),
      ),
      holds(
        lines(
          "Stream s = File.OpenRead(path);",
          "var n = s.ReadByte();",
          "s.Dispose();",
          "return n.ToString();",
        ),
        "behind what becomes a block",
      ),
      // Names that are also words of the language are names.
      holds(
        lines(
          "Stream from = File.OpenRead(path);",
          "try { from.ReadByte(); } finally { from.Dispose(); }",
          "return from.ToString();",
        ),
        "outside",
      ),
      // Handlers stay around it.
      rewrites(
        lines(
          "StreamReader s = null;",
          "try",
          "{",
          "    Log(path);",
          "    s = new StreamReader(path);",
          "    return s.ReadLine();",
          "}",
          "catch (IOException)",
          "{",
          "    return null;",
          "}",
          "finally",
          "{",
          "    s?.Dispose();",
          "}",
        ),
        lines(
          "try",
          "{",
          "    Log(path);",
          "    using (StreamReader s = new StreamReader(path))",
          "    {",
          "        return s.ReadLine();",
          "    }",
          "}",
          "catch (IOException)",
          "{",
          "    return null;",
          "}",
        ),
        "likely",
      ),
      holds(
        lines(
          "var s = new StreamReader(path);",
          "if (path != null)",
          "{",
          "    s.Close();",
          "}",
          "return null;",
        ),
        "neither at the end",
      ),
      holds(
        lines("Stream s = File.OpenRead(path);", "done += () => s.ReadByte();", "s.Dispose();"),
        "run later",
      ),
      ignores(lines("Stream s = File.OpenRead(path);", "return Wrap(s);")),
      holds(
        lines("Stream s = File.OpenRead(path);", "try { s.ReadByte(); } finally { count++; s.Dispose(); }"),
        "in the same `finally`",
      ),
      modern.rewrites(
        lines(
          "foreach (var s in names) { Log(s); }",
          "Stream file = File.OpenRead(path);",
          "try",
          "{",
          "    var s = file.ReadByte();",
          "    return s.ToString();",
          "}",
          "finally",
          "{",
          "    file.Dispose();",
          "}",
        ),
        lines(
          "foreach (var s in names) { Log(s); }",
          "using (Stream file = File.OpenRead(path))",
          "{",
          "    var s = file.ReadByte();",
          "    return s.ToString();",
          "}",
        ),
      ),
    ],
  });
}

export const scopedResource = scopedResourceWith();
