import {
  canThrow,
  caution,
  condition,
  holes,
  java,
  rule,
  scoped,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Handle, Match, Rule } from "../../core.js";
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
import { calleeOf, handleOf, rowsFor } from "../family/handles.js";
import {
  closesQuietly,
  handlesClosing,
  isCloseable,
  isNeverNull,
  isQuietClose,
  isUnseen,
  looksCloseable,
} from "./closeable.js";

const { type, name, made, body, marks, helper, owner } = holes({
  type: "type",
  name: "name",
  made: "expression",
  body: "statements",
  marks: "modifiers",
  helper: { kind: "name", text: /^close\w*$/i },
  owner: { kind: "expression", text: /^[\w.]+$/ },
});
const HOLES = { name, body };

const CLOSE = java`${name}.close();`;
const QUIET = java`${helper}(${name});`;
const QUIET_OF = java`${owner}.${helper}(${name});`;

const isQuiet = (match: Match): boolean => match.resource.release.quiet;

/** Is it closed after an exception too, so that closing can throw a second one? */
const isClosedAfter = (match: Match): boolean => match.resource.guard !== undefined && !isQuiet(match);

/** When both the block and closing fail, the exception of the block is seen now, and that of closing before. */
function sameException(match: Match): Answer {
  const { body: statements } = match.resource;
  const throwing = statements.map(canThrow);
  if (throwing.every(({ is }) => is === "no")) return yes("resource.sooner", "nothing in the block throws");
  return closesQuietly(match, match.the(type), match.the(made));
}

const { rewrites, holds, ignores } = trialsIn("java");
const inMethod = (code: string): string =>
  `import java.io.*;\n\nclass Hives {\n    String read(File file) throws IOException {\n        ${code}\n    }\n}\n`;

const QUIET_CLASS =
  "class Quiet { static void close(Closeable c) { if (c != null) try { c.close(); } catch (IOException e) { /* no */ } } }\n" +
  "class Loud { static void close(Closeable c) { try { c.close(); } catch (IOException e) { log(e); } } }\n";

const MIXED_CLASS =
  "class Mixed { static void close(Writer c) { try { c.close(); } catch (IOException e) { } } static void close(Reader c) { try { c.close(); } catch (IOException e) { log(e); } } }\n";

/** The rule for the resources of the language, and for those of a project. */
function scopedResourceWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("java", [], own);
  const releasing: Releasing = {
    unprotected: unprotectedIn,
    isUnseen: (match) => handleOf(rows, match.the(made))?.row.unseen ?? isUnseen(match.the(made)),
  };
  return rule({
    id: "java/scoped-resource",
    kind: "idiom",
    title: "Use try-with-resources instead of closing by hand",
    why: "What is closed by hand stays open when something in between throws, and an exception while closing hides the one that mattered.",
    target: "7",
    withHandles: scopedResourceWith,
    mentions: ["close", "Close"],
    was: scoped({
      name,
      made,
      body,
      acquire: [java`${marks} ${type} ${name} = ${made};`],
      later: { declare: java`${type} ${name} = null;`, acquire: java`${name} = ${made};` },
      release: [{ code: CLOSE }, { code: QUIET, quietly: true }, { code: QUIET_OF, quietly: true }],
      takesHandlers: true,
      hides: true,
      guesses: true,
      acquires: (value) => calleeOf(value) !== undefined && looksCloseable(value, rows),
    }),
    given: [
      condition(
        "its type is a resource of the language",
        (match) => isCloseable(match, match.the(type), match.the(made), rows),
        { unknownIs: "possible" },
      ),
      condition("it is released by closing it", (match) => isQuietClose(match, match.the(helper)), {
        unknownIs: "possible",
        when: (match) => match.has(helper),
      }),
      condition(
        "what closing throws may be thrown here",
        (match) => handlesClosing(match, match.the(type), match.the(made)),
        { when: isQuiet },
      ),
      ...blockConditions(
        HOLES,
        releasing,
        (use) => use.field === "object" && use.parent?.child("name")?.text === "close",
      ),
      condition("of two exceptions the same one is seen", sameException, { when: isClosedAfter }),
      failsTheSame({ ...HOLES, made }),
      condition("what is released is no missing value", (match) => isNeverNull(match.the(made)), {
        when: isReleasedAnyway,
      }),
      condition(
        "the handlers do not catch what closing it throws",
        (match) =>
          unknown(
            "resource.order",
            `closing \`${match.textOf(name)}\` could throw what the handler catches`,
            match.node,
          ),
        { when: (match) => match.resource.after.length > 0 },
      ),
    ],
    cautions: (match) => [
      ...soonerCaution(match, HOLES, releasing),
      ...scopedCautions(match, HOLES),
      ...(match.resource.after.length > 0 || !isClosedAfter(match) || sameException(match).is === "yes"
        ? []
        : [
            caution(
              "resource.order",
              `when both the block and closing \`${match.textOf(name)}\` throw, the exception of the block is the one that is seen now`,
            ),
          ]),
    ],
    notes: (match) => soonerNote(match, HOLES, releasing),
    becomes: (match) =>
      match.has(marks) && match.all(marks).length > 0
        ? java`
            try (${marks} ${type} ${name} = ${made}) {
              ${body}
            }
          `
        : java`
            try (${type} ${name} = ${made}) {
              ${body}
            }
          `,
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
      rewrites(
        inMethod(
          "Reader in = new FileReader(file);\n        if (file == null) {\n            in.close();\n            return null;\n        }\n        in.read();\n        in.close();\n        return null;",
        ),
        inMethod(
          "try (Reader in = new FileReader(file)) {\n            if (file == null) {\n                return null;\n            }\n            in.read();\n        }\n        return null;",
        ),
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            if (file == null) in.close();\n            return name(in);\n        } finally {\n            in.close();\n        }",
        ),
        "another place",
      ),
      // What is used later is declared ahead.
      rewrites(
        inMethod(
          "Reader in = new FileReader(file);\n        int n = in.read(), m = 1;\n        int k = 0;\n        final int sum = in.read();\n        in.close();\n        return name(k + sum);",
        ),
        inMethod(
          "int k = 0;\n        final int sum;\n        try (Reader in = new FileReader(file)) {\n            int n = in.read(), m = 1;\n            sum = in.read();\n        }\n        return name(k + sum);",
        ),
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        var n = in.read();\n        in.close();\n        return name(n);",
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
      rewrites(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            in.close();\n            log();\n        }",
        ),
        inMethod(
          "try {\n            try (Reader in = new FileReader(file)) {\n                return name(in);\n            }\n        } finally {\n            log();\n        }",
        ),
        "likely",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            log();\n            in.close();\n        }",
        ),
        "in the same `finally`",
      ),
      // What cannot be declared ahead: a name that means something else there, the items of an array.
      holds(
        inMethod(
          "Reader in = new FileReader(name);\n        String name = in.toString();\n        in.close();\n        return name;",
        ),
        "behind what becomes a block",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        int[] all = { in.read() };\n        in.close();\n        return name(all);",
        ),
        "behind what becomes a block",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        int all[] = more(in.read());\n        in.close();\n        return name(all);",
        ),
        "behind what becomes a block",
      ),
      // A statement between acquiring and the `try` belongs to the block, handlers with the file open stay inside.
      rewrites(
        inMethod(
          "Reader in = new FileReader(file);\n        int k = 0; // none yet\n\n        // all of it\n        try {\n            return name(in);\n        } catch (RuntimeException e) {\n            return name(k);\n        } finally {\n            in.close();\n        }",
        ),
        inMethod(
          "try (Reader in = new FileReader(file)) {\n            int k = 0; // none yet\n\n            // all of it\n            try {\n                return name(in);\n            } catch (RuntimeException e) {\n                return name(k);\n            }\n        }",
        ),
      ),
      // Two of them, closed in reverse.
      rewrites(
        inMethod(
          "Reader in = null;\n        Writer out = null;\n        try {\n            in = new FileReader(file);\n            out = new FileWriter(file);\n            out.write(in.read());\n        } finally {\n            if (out != null) out.close();\n            if (in != null) in.close();\n        }\n        return null;",
        ),
        inMethod(
          "try (Reader in = new FileReader(file)) {\n            try (Writer out = new FileWriter(file)) {\n                out.write(in.read());\n            }\n        }\n        return null;",
        ),
        "likely",
      ),
      // What closes quietly: a method of the project, one that is known by its name, a `try` of its own.
      ...["Quiet.close(in);", "try { in.close(); } catch (IOException e) { }"].map((close) =>
        rewrites(
          inMethod(
            `Reader in = null;\n        try {\n            in = new FileReader(file);\n            return name(in);\n        } finally {\n            ${close}\n        }`,
          ) + QUIET_CLASS,
          inMethod("try (Reader in = new FileReader(file)) {\n            return name(in);\n        }") +
            QUIET_CLASS,
          "likely",
        ),
      ),
      rewrites(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            Streams.closeQuietly(in);\n        }",
        ),
        inMethod("try (Reader in = new FileReader(file)) {\n            return name(in);\n        }"),
        "possible",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            Loud.close(in);\n        }",
        ) + QUIET_CLASS,
        "does more than close it: `log(e);`",
      ),
      // A helper that throws, several of which one is called by type, two exceptions of which one is caught.
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            Plain.close(in);\n        }",
        ) + "class Plain { static void close(Closeable c) throws IOException { c.close(); } }\n",
        "does not pass over what goes wrong",
      ),
      rewrites(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            Mixed.close(in);\n        }",
        ) + MIXED_CLASS,
        inMethod("try (Reader in = new FileReader(file)) {\n            return name(in);\n        }") +
          MIXED_CLASS,
        "possible",
      ),
      holds(
        "import java.io.*;\nclass Smoker implements AutoCloseable { public void close() throws IOException, HiveException { } }\nclass A { void f() { try { Smoker s = new Smoker(); try { s.puff(); } finally { try { s.close(); } catch (Exception e) { } } } catch (IOException e) { g(e); } } }\n",
        "which nothing here declares or catches",
      ),
      // A quiet release in the block is another release.
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            if (file == null) Quiet.close(in);\n            return name(in);\n        } finally {\n            in.close();\n        }",
        ) + QUIET_CLASS,
        "another place",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        try {\n            return name(in);\n        } finally {\n            try { in.close(); } catch (IOException e) { log(e); }\n        }",
        ),
        "where releasing `in` fails",
      ),
      // The compiler wants what closing throws to be declared.
      holds(
        "import java.io.*;\nclass A { void f(Reader given) { Reader in = new BufferedReader(given); try { use(in); } finally { try { in.close(); } catch (IOException e) { } } } }\n",
        "which nothing here declares or catches",
      ),
      holds(
        inMethod(
          "Reader in = new FileReader(file);\n        if (file != null) {\n            in.close();\n        }\n        return null;",
        ),
        "neither at the end",
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
