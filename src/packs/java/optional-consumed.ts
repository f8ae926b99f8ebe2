import {
  each,
  condition,
  containing,
  fresh,
  holes,
  java,
  mayRunAnyway,
  nameInFile,
  no,
  referencesAt,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  unknown,
  yes,
} from "../../index.js";
import type { Answer, Match } from "../../index.js";
import { staysQuiet, usesOnlyFinal } from "./lambdas.js";
import { isOfType, isOptional, typeArguments, wantsPrimitive } from "./types.js";

const { maybe, fallback, error, type, name, body } = holes({
  maybe: "expression",
  fallback: "expression",
  error: "expression",
  type: "type",
  name: "name",
  body: "statements",
});
const value = fresh("value");

const FORMS = [
  java.expression`${maybe}.isPresent() ? ${maybe}.get() : ${fallback}`,
  java.expression`!${maybe}.isPresent() ? ${fallback} : ${maybe}.get()`,
  java`
    if (${maybe}.isPresent()) {
      return ${maybe}.get();
    }
    return ${fallback};
  `,
  java`
    if (!${maybe}.isPresent()) {
      throw ${error};
    }
    ${type} ${name} = ${maybe}.get();
  `,
  java`
    if (!${maybe}.isPresent()) {
      throw ${error};
    }
    return ${maybe}.get();
  `,
  java`
    if (${maybe}.isPresent()) {
      ${body}
    }
  `,
];
const RETURNS = 2;
const DECLARES = 3;
const THROWS = 4;
const RUNS = 5;

const isPlain = (match: Match): boolean => mayRunAnyway(match.the(fallback)).is === "yes";

/** What becomes of the value: the same as what the Optional holds, or something of another type. */
function isOfItsType(match: Match): Answer {
  if (!match.has(fallback)) return yes("name.scope", "there is no default");
  const [type] = typeArguments(match.the(maybe));
  const node = match.the(fallback);
  const same = isOfType(node, type);
  if (same.is !== "yes" || match.alternative === RETURNS) return same;
  return wantsPrimitive(match.node, type, node);
}

/** Behind an assignment the Optional holds something else than what was tested. */
function isLeftAlone(match: Match): Answer {
  if (match.alternative !== RUNS) return yes("name.scope", "it is read at once");
  const node = match.the(maybe);
  const leaf = [...node.descendants()].findLast((one) => one.isLeaf && one.named)!;
  const to = referencesAt(leaf).find((one) => one.to)?.to;
  const inBody = match.all(body);
  const written =
    to &&
    nameInFile(to.name, match.tree).references.find(
      (one) => one.to === to && one.does !== "read" && inBody.some((part) => part.holds(one.node)),
    );
  if (written) return no("flow.written", `\`${node.text}\` is given another value here`, written.node);
  if (to && (to.as === "local" || to.as === "parameter"))
    return yes("flow.written", `\`${node.text}\` is a variable of this method`);
  const call = inBody
    .flatMap((part) => [...part.descendants()])
    .find((one) => {
      return one.is(match.tree.language.calls) && one.child("object")?.text !== node.text;
    });
  return call
    ? unknown("flow.written", `\`${shortened(call.text)}\` could give \`${node.text}\` another value`, call)
    : yes("flow.written", `\`${node.text}\` is not written meanwhile`);
}

/** What moves into a lambda. */
const moved = (match: Match) =>
  match.alternative === RUNS
    ? match.all(body)
    : match.has(error)
      ? [match.the(error)]
      : isPlain(match)
        ? []
        : [match.the(fallback)];

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string, given = "Optional<String> queen"): string =>
  `import java.util.Optional;\n\nclass A {\n    String f(${given}) {\n        ${code}\n    }\n}\n`;

export const optionalConsumed = rule({
  id: "java/optional-consumed",
  kind: "idiom",
  title: "Use ifPresent, map or orElse instead of isPresent and get",
  why: "A test followed by get() is a null test in new clothes, and the next reader must check that both belong together.",
  target: "8",
  was: FORMS,
  where: [
    (match) => match.alternative !== RUNS || containing(java`${maybe}.get()`, { in: body })(match) !== false,
  ],
  given: [
    condition("it is an Optional", (match) => isOptional(match.the(maybe)), { unknownIs: "possible" }),
    sideEffectFree(maybe),
    condition("what moves into a lambda uses only variables that never change", (match) =>
      usesOnlyFinal(moved(match)),
    ),
    condition("what moves into a lambda throws nothing that must be declared, and leaves nothing", (match) =>
      staysQuiet(moved(match)),
    ),
    condition("the default is of the type that the Optional holds", isOfItsType),
    condition("the Optional is the same where it is read", isLeftAlone),
  ],
  becomes: (match) => {
    const otherwise = match.has(fallback)
      ? isPlain(match)
        ? java`${maybe}.orElse(${fallback})`
        : java`${maybe}.orElseGet(() -> ${fallback})`
      : java`${maybe}.orElseThrow(() -> ${error})`;
    if (match.alternative === RUNS) {
      return java`
        ${maybe}.ifPresent(${value} -> {
          ${each(java`${maybe}.get()`, { in: body }).becomes(value)}
        });
      `;
    }
    if (match.alternative === DECLARES) return java`${type} ${name} = ${otherwise};`;
    if (match.alternative === RETURNS || match.alternative === THROWS) return java`return ${otherwise};`;
    return otherwise;
  },
  trials: [
    rewrites(
      inMethod('return queen.isPresent() ? queen.get() : "none";'),
      inMethod('return queen.orElse("none");'),
    ),
    rewrites(
      inMethod("return !queen.isPresent() ? null : queen.get();"),
      inMethod("return queen.orElse(null);"),
    ),
    rewrites(
      inMethod("return queen.isPresent() ? queen.get() : find(1);"),
      inMethod("return queen.orElseGet(() -> find(1));"),
      "likely",
    ),
    rewrites(
      inMethod('if (queen.isPresent()) {\n            return queen.get();\n        }\n        return "";'),
      inMethod('return queen.orElse("");'),
    ),
    rewrites(
      inMethod(
        'if (!queen.isPresent()) {\n            throw new IllegalStateException("no queen");\n        }\n        String q = queen.get();\n        return q;',
      ),
      inMethod(
        'String q = queen.orElseThrow(() -> new IllegalStateException("no queen"));\n        return q;',
      ),
    ),
    rewrites(
      inMethod('if (queen.isPresent()) {\n            mark(queen.get());\n        }\n        return "";'),
      inMethod('queen.ifPresent(value -> {\n            mark(value);\n        });\n        return "";'),
      "likely",
    ),
    rewrites(
      inMethod('return queen.isPresent() ? queen.get() : "";', "Hive hive"),
      inMethod('return queen.orElse("");', "Hive hive"),
      "possible",
    ),
    holds(
      inMethod(
        'if (queen.isPresent()) {\n            return mark(queen.get());\n        }\n        return "";',
      ),
      "cannot leave a lambda",
    ),
    holds(
      inMethod(
        "int n = 0;\n        n++;\n        if (queen.isPresent()) {\n            mark(queen.get(), n);\n        }\n        return null;",
      ),
      "more than once",
    ),
    holds(inMethod("return find().isPresent() ? find().get() : null;"), "calls something"),
    holds(inMethod('return queen.isPresent() ? queen.get() : "";', "Box queen"), "is no Optional"),
    ignores(inMethod('return queen.isPresent() ? other.get() : "";')),
    ignores(inMethod("if (queen.isPresent()) {\n            count();\n        }\n        return null;")),
    ignores(
      inMethod(
        "if (queen.isPresent()) {\n            mark(queen.get());\n        } else {\n            count();\n        }\n        return null;",
      ),
    ),
  ],
});
