import { caution, canThrow, condition, holes, java, no, rule, trialsIn, unknown, yes } from "../../index.js";
import type { Answer, Handle, Match, Rule, Snippet } from "../../index.js";
import { blockConditions, soonerCaution, soonerNote, type Releasing } from "../family/resource.js";
import { handleOf, rowsFor } from "../family/handles.js";
import { closesQuietly, isCloseable, isNeverNull, isUnseen } from "./closeable.js";

const { type, name, made, body, error, errors, handler, marks } = holes({
  type: "type",
  name: "name",
  made: "expression",
  body: "statements",
  error: "name",
  errors: "type",
  handler: "statements",
  marks: "modifiers",
});
const HOLES = { name, body };

/** How the old code sees to the release: in `finally`, there and after a `catch` of the same `try`, or at the end. */
type Shape = "finally" | "caught" | "straight";
interface Form {
  readonly shape: Shape;
  /** Is it tested for being there before it is closed? */
  readonly tested: boolean;
  /** Is it acquired inside of the `try`, so that closing is reached when that fails? */
  readonly inside: boolean;
  readonly was: Snippet;
}

const CLOSES = [
  { tested: false, close: java`${name}.close();` },
  { tested: true, close: java`if (${name} != null) { ${name}.close(); }` },
];

const FORMS: readonly Form[] = [
  ...CLOSES.flatMap(({ tested, close }): Form[] => [
    {
      shape: "finally",
      tested,
      inside: false,
      was: java`
        ${marks} ${type} ${name} = ${made};
        try {
          ${body}
        } finally {
          ${close}
        }
      `,
    },
    {
      shape: "finally",
      tested,
      inside: true,
      was: java`
        ${type} ${name} = null;
        try {
          ${name} = ${made};
          ${body}
        } finally {
          ${close}
        }
      `,
    },
    {
      shape: "caught",
      tested,
      inside: true,
      was: java`
        ${type} ${name} = null;
        try {
          ${name} = ${made};
          ${body}
        } catch (${errors} ${error}) {
          ${handler}
        } finally {
          ${close}
        }
      `,
    },
  ]),
  {
    shape: "straight",
    tested: false,
    inside: false,
    was: java`
      ${marks} ${type} ${name} = ${made};
      ${body}
      ${name}.close();
    `,
  },
];
const formOf = (match: Match): Form => FORMS[match.alternative]!;
const shapeOf = (match: Match): Shape => formOf(match).shape;

/** When both the block and closing fail, the exception of the block is seen now, and that of closing before. */
function sameException(match: Match): Answer {
  const throwing = match.all(body).map(canThrow);
  if (throwing.every(({ is }) => is === "no")) return yes("resource.sooner", "nothing in the block throws");
  return closesQuietly(match, match.the(type), match.the(made));
}

/** Where nothing was acquired, the old code failed in closing it, unless it asked. */
function isThereToClose(match: Match): Answer {
  const { tested, inside, shape } = formOf(match);
  if (tested || shape === "straight")
    return tested
      ? yes("resource.failed", "the old code asks whether it is there")
      : isNeverNull(match.the(made));
  return inside
    ? unknown(
        "resource.failed",
        `where \`${match.textOf(made)}\` fails, the old code failed again in closing nothing`,
        match.node,
      )
    : isNeverNull(match.the(made));
}

const { rewrites, holds, ignores } = trialsIn("java");
const inMethod = (code: string): string =>
  `import java.io.*;\n\nclass Hives {\n    String read(File file) throws IOException {\n        ${code}\n    }\n}\n`;

/** The rule for the resources of the language, and for those of a project. */
function scopedResourceWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("java", [], own);
  const releasing: Releasing = {
    isStraight: (match) => shapeOf(match) === "straight",
    isUnseen: (match) => handleOf(rows, match.the(made))?.row.unseen ?? isUnseen(match.the(made)),
  };
  return rule({
    id: "java/scoped-resource",
    kind: "idiom",
    title: "Let try with resources close what was opened",
    why: "What is closed by hand stays open when something in between throws, and an exception while closing hides the one that mattered.",
    target: "7",
    withHandles: scopedResourceWith,
    was: FORMS.map(({ was }) => was),
    where: [(match) => match.textOf(made) !== "null"],
    given: [
      condition(
        "its type is a resource of the language",
        (match) => isCloseable(match, match.the(type), match.the(made), rows),
        { unknownIs: "possible" },
      ),
      ...blockConditions(
        HOLES,
        releasing,
        (use) => use.field === "object" && use.parent?.child("name")?.text === "close",
      ),
      condition("of two exceptions the same one is seen", (match) =>
        shapeOf(match) === "straight"
          ? yes("resource.sooner", "nothing was closed after an exception")
          : sameException(match),
      ),
      condition("what is closed is there", isThereToClose),
      condition("the handlers neither use it nor catch what closing it throws", (match) => {
        if (shapeOf(match) !== "caught") return yes("resource.order", "no handler is there");
        const what = match.textOf(name);
        const use = match.all(handler).flatMap((one) => one.mentions(what))[0];
        return use
          ? no("resource.order", `\`${what}\` is closed before this handler runs now`, use)
          : unknown("resource.order", `closing \`${what}\` could throw what the handler catches`, match.node);
      }),
    ],
    cautions: (match) => {
      const what = match.textOf(name);
      if (shapeOf(match) === "caught")
        return [
          caution("resource.order", `when closing \`${what}\` throws, the handler now catches it`),
          caution("resource.order", `\`${what}\` is now closed before the handler runs, not after it`),
        ];
      if (shapeOf(match) === "straight") return soonerCaution(match, HOLES, releasing);
      return sameException(match).is === "yes"
        ? []
        : [
            caution(
              "resource.order",
              `when both the block and closing \`${what}\` throw, the exception of the block is the one that is seen now`,
            ),
          ];
    },
    notes: (match) => soonerNote(match, HOLES, releasing),
    becomes: (match) => {
      const modified = match.has(marks) && match.all(marks).length > 0;
      const head = modified ? java`${marks} ${type} ${name} = ${made}` : java`${type} ${name} = ${made}`;
      if (shapeOf(match) !== "caught")
        return java`
          try (${head}) {
            ${body}
          }
        `;
      return java`
        try (${head}) {
          ${body}
        } catch (${errors} ${error}) {
          ${handler}
        }
      `;
    },
    trials: [
      rewrites(
        inMethod(
          "BufferedReader in = new BufferedReader(new FileReader(file));\n        try {\n            return in.readLine(); // the first\n        } finally {\n            in.close();\n        }",
        ),
        inMethod(
          "try (BufferedReader in = new BufferedReader(new FileReader(file))) {\n            return in.readLine(); // the first\n        }",
        ),
      ),
      rewrites(
        inMethod(
          "Reader in = null;\n        try {\n            in = new FileReader(file);\n            return name(in);\n        } finally {\n            if (in != null) {\n                in.close();\n            }\n        }",
        ),
        inMethod("try (Reader in = new FileReader(file)) {\n            return name(in);\n        }"),
      ),
      rewrites(
        inMethod(
          "final Writer out = new FileWriter(file);\n        out.write(1);\n        out.close();\n        return null;",
        ),
        inMethod(
          "try (final Writer out = new FileWriter(file)) {\n            out.write(1);\n        }\n        return null;",
        ),
      ),
      rewrites(
        inMethod(
          "Reader in = null;\n        try {\n            in = new FileReader(file);\n            return name(1);\n        } catch (IOException e) {\n            return null;\n        } finally {\n            if (in != null) in.close();\n        }",
        ),
        inMethod(
          "try (Reader in = new FileReader(file)) {\n            return name(1);\n        } catch (IOException e) {\n            return null;\n        }",
        ),
        "likely",
      ),
      rewrites(
        inMethod(
          "Smoker smoker = Smoker.light();\n        try {\n            return name(smoker);\n        } finally {\n            smoker.close();\n        }",
        ),
        inMethod("try (Smoker smoker = Smoker.light()) {\n            return name(smoker);\n        }"),
        "possible",
      ),
      holds(
        "class Smoker { void close() {} }\nclass A { void f() { Smoker s = new Smoker(); try { s.puff(); } finally { s.close(); } } }\n",
        "does not say that it can be closed",
      ),
      rewrites(
        "import java.io.*;\nclass Smoker implements Closeable { public void close() {} }\nclass A { void f() { Smoker s = new Smoker(); try { s.puff(); } finally { s.close(); } } }\n",
        "import java.io.*;\nclass Smoker implements Closeable { public void close() {} }\nclass A { void f() { try (Smoker s = new Smoker()) { s.puff(); } } }\n",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            in = new BufferedReader(in);\n            return name(in);\n        } finally {\n            in.close();\n        }",
        ),
        "acquired anew",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            in.read();\n        } finally {\n            in.close();\n        }\n        return in.toString();",
        ),
        "outside",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        if (file == null) {\n            return use(in);\n        }\n        in.read();\n        in.close();\n        return null;",
        ),
        "handed on",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        if (file == null) {\n            in.close();\n            return null;\n        }\n        in.read();\n        in.close();\n        return null;",
        ),
        "another place",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        int n = in.read();\n        in.close();\n        return name(n);",
        ),
        "behind what becomes a block",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        this.in = in;\n        in.read();\n        in.close();\n        return null;",
        ),
        "is stored",
      ),
      holds(
        inMethod(
          "Reader in = null;\n        try {\n            in = new FileReader(file);\n            return name(1);\n        } catch (IOException e) {\n            return name(in);\n        } finally {\n            if (in != null) in.close();\n        }",
        ),
        "before this handler",
      ),
      ignores(inMethod("Reader in = new FileReader(file);\n        return name(in);")),
      ignores(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            in.close();\n            log();\n        }",
        ),
      ),
      trialsIn("java", "6").ignores(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            in.close();\n        }",
        ),
      ),
    ],
  });
}

export const scopedResource = scopedResourceWith();
