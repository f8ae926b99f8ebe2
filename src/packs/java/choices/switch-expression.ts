import { copy, holes, rule, switched, text, trialsIn } from "../../../core.js";
import { asExpression } from "../../family/switch-values.js";

const { subject } = holes({ subject: "expression" });
const { rewrites, ignores } = trialsIn("java", "14");
const inMethod = (code: string): string =>
  `class A {\n    String f(int a, Taste t) {\n        ${code.replaceAll("\n", "\n        ")}\n    }\n}\n`;

export const switchExpression = rule({
  id: "java/switch-expression",
  kind: "idiom",
  title: "Use a switch expression for a switch that only gives a value",
  why: "Each way repeats where its value goes, and one that forgets its break runs into the next.",
  target: "14",
  was: switched(subject),
  becomes: (match) =>
    asExpression(match, {
      head: ({ start, end }) => [text("switch ("), copy(start, end), text(")")],
      label: { before: "case ", between: ", ", otherwise: "default" },
      arrow: " -> ",
      end: ";",
      lastEnd: ";",
      throwsAsStatement: true,
    }),
  trials: [
    rewrites(
      inMethod(
        'switch (a) {\n    case 1:\n    case 2:\n        return "x";\n    case 3: {\n        return "y";\n    }\n    default:\n        throw new E();\n}',
      ),
      inMethod(
        'return switch (a) {\n    case 1, 2 -> "x";\n    case 3 -> "y";\n    default -> throw new E();\n};',
      ),
    ),
    // The way for all else stands behind it.
    rewrites(
      inMethod(
        'switch (t) {\n    case SWEET: return "x"; // clover\n    case SOUR: return g(a);\n}\nreturn null;',
      ),
      inMethod(
        'return switch (t) {\n    case SWEET -> "x"; // clover\n    case SOUR -> g(a);\n    default -> null;\n};',
      ),
    ),
    rewrites(
      inMethod(
        'String y;\nswitch (a) {\ndefault:\n    y = "d";\n    break;\ncase 1:\n    y = g(a);\n    break;\ncase 2:\n    y = "x";\n}\nreturn y;',
      ),
      inMethod(
        'String y = switch (a) {\n    case 1 -> g(a);\n    case 2 -> "x";\n    default -> "d";\n};\nreturn y;',
      ),
    ),
    rewrites(
      inMethod(
        'this.y = null;\nswitch (a) {\n    case 1:\n        this.y = "x";\n        break;\n    case 2:\n        this.y = "z";\n        break;\n    default:\n        this.y = "d";\n        break;\n}',
      ),
      inMethod(
        'this.y = null;\nthis.y = switch (a) {\n    case 1 -> "x";\n    case 2 -> "z";\n    default -> "d";\n};',
      ),
    ),
    // Comments go with the value that they stand beside.
    rewrites(
      inMethod(
        "switch (a) {\n    // first\n    case 1: // one\n        return g(\n            a);\n    case 2:\n        // two\n        return null;\n    /* all */ default:\n        throw new E(); // never\n}",
      ),
      inMethod(
        "return switch (a) {\n    // first\n    case 1 -> g(\n        a); // one\n    // two\n    case 2 -> null;\n    /* all */ default -> throw new E(); // never\n};",
      ),
    ),
    // It runs on into the next way.
    ignores(inMethod('String y;\nswitch (a) { case 1: y = "x"; case 2: y = "z"; break; default: y = "d"; }')),
    // Nothing is given for all else.
    ignores(inMethod('String y = "";\nswitch (a) { case 1: y = "x"; break; case 2: y = "z"; break; }')),
    ignores(inMethod('switch (a) { case 1: return "x"; case 2: return "z"; }\ng(a);\nreturn null;')),
    // A way does more, or gives its value elsewhere.
    ignores(inMethod('switch (a) { case 1: g(a); return "x"; case 2: return "z"; default: return "d"; }')),
    ignores(
      inMethod('switch (a) { case 1: y = "x"; break; case 2: z = "z"; break; default: y = "d"; break; }'),
    ),
    ignores(inMethod('switch (a) { case 1: y += "x"; break; case 2: y += "z"; break; default: y += "d"; }')),
    ignores(
      inMethod(
        'switch (a) { case 1: ys[i++] = "x"; break; case 2: ys[i++] = "z"; break; default: ys[i++] = "d"; }',
      ),
    ),
    ignores(
      inMethod('while (g()) { switch (a) { case 1: return "x"; case 2: continue; default: return "d"; } }'),
    ),
    // Two ways are an if.
    ignores(inMethod('switch (a) { case 1: return "x"; default: return "d"; }')),
    ignores(inMethod('return switch (a) { case 1 -> "x"; case 2 -> "z"; default -> "d"; };')),
    trialsIn("java", "11").ignores(
      inMethod('switch (a) { case 1: return "x"; case 2: return "z"; default: return "d"; }'),
    ),
  ],
});
