import {
  caution,
  choice,
  condition,
  containing,
  each,
  fresh,
  holes,
  java,
  mayRunAnyway,
  nameInFile,
  no,
  onlyIf,
  orThrows,
  present,
  referencesAt,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { isNeverNull } from "./create-if-absent.js";
import { staysQuiet, usesOnlyFinal } from "./lambdas.js";
import { oneMethod } from "./one-method.js";
import { isOfType, isOptional, typeArguments, wantsPrimitive } from "./types.js";

const { maybe, fallback, read, error, body } = holes({
  maybe: "expression",
  fallback: "expression",
  read: "expression",
  error: "expression",
  body: "statements",
});
const value = fresh("value");
const got = java`${maybe}.get()`;

const PRESENT = present(maybe, { or: ["value"] });
const EMPTY = java.expression`Optional.empty()`;

/** The value or a default; what is read of the value, or a default; the value or an exception; what is done with it. */
const FORMS = [
  { is: "value", was: choice(PRESENT, maybe, fallback) },
  { is: "wrapped", was: choice(PRESENT, java.expression`Optional.of(${read})`, EMPTY) },
  { is: "wrapped or empty", was: choice(PRESENT, java.expression`Optional.ofNullable(${read})`, EMPTY) },
  { is: "flat", was: choice(PRESENT, read, EMPTY) },
  { is: "mapped", was: choice(PRESENT, read, fallback) },
  { is: "insisted", was: orThrows(maybe, error, { or: ["value"] }) },
  { is: "run", was: onlyIf(PRESENT, body) },
] as const;
const formOf = ({ alternative }: Match) => FORMS[alternative]!.is;

const isPlain = (match: Match): boolean => mayRunAnyway(match.the(fallback)).is === "yes";

/** Forms whose values are Optionals themselves, with none where there is no value. */
const FLAT = ["wrapped", "wrapped or empty", "flat"];
const isFlat = (match: Match): boolean => FLAT.includes(formOf(match));

/** `map` makes nothing of null, where `Optional.of` throws. */
const isMappable = (match: Match): boolean =>
  formOf(match) === "wrapped or empty" || (formOf(match) === "wrapped" && isNeverNull(match.the(read)));

/** What becomes of the value: the same as what the Optional holds, or something of another type. */
function isOfItsType(match: Match): Answer {
  if (isFlat(match)) return isFlattened(match);
  if (!match.has(fallback)) return yes("name.scope", "there is no default");
  const [type] = typeArguments(match.the(maybe));
  const node = match.the(fallback);
  if (formOf(match) === "mapped") return isOfMappedType(match);
  const same = isOfType(node, type);
  if (same.is !== "yes" || match.place.parent?.is("return_statement")) return same;
  return wantsPrimitive(match.place, type, node);
}

/** `flatMap` takes no null for an Optional. */
function isFlattened(match: Match): Answer {
  const made = match.the(read);
  const shown = shortened(made.text);
  if (formOf(match) !== "flat") return yes("type.same", `\`${shown}\` is put into an Optional`, made);
  return typeOf(made)?.name === "Optional" && isNeverNull(made)
    ? yes("type.same", `\`${shown}\` is an Optional`, made)
    : unknown(
        "value.null",
        `\`${shown}\` must be an Optional, and could be null, for which \`flatMap\` throws`,
        made,
      );
}

/** A function that gives null makes the Optional empty, so that the default is taken, and must give what the default is. */
function isOfMappedType(match: Match): Answer {
  const [made, otherwise] = [match.the(read), match.the(fallback)];
  const shown = shortened(made.text);
  if (!isNeverNull(made))
    return unknown(
      "value.null",
      `\`${shown}\` could be null, for which the new code takes the default`,
      made,
    );
  const [one, other] = [typeOf(made), typeOf(otherwise)];
  return one && other && one.name === other.name
    ? yes("type.same", one.why, made)
    : unknown("type.same", `\`${shortened(otherwise.text)}\` must be of the type of \`${shown}\``, otherwise);
}

/** Behind an assignment the Optional holds something else than what was tested. */
function isLeftAlone(match: Match): Answer {
  if (formOf(match) !== "run") return yes("name.scope", "it is read at once");
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
const moved = (match: Match): readonly SyntaxNode[] => {
  if (formOf(match) === "run") return match.all(body);
  if (match.has(error)) return [match.the(error)];
  if (isFlat(match)) return [match.the(read)];
  return [...(match.has(read) ? [match.the(read)] : []), ...(isPlain(match) ? [] : [match.the(fallback)])];
};

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string, given = "Optional<String> queen"): string =>
  `import java.util.Optional;\n\nclass A {\n    String f(${given}) {\n        ${code}\n    }\n}\n`;

export const optionalConsumed = rule({
  id: "java/optional-consumed",
  kind: "idiom",
  title: "Use ifPresent, map or orElse instead of isPresent and get",
  why: "A test followed by get() is a null test in new clothes, and the next reader must check that both belong together.",
  target: "8",
  was: FORMS.map(({ was }) => was),
  where: [
    ({ tests }) => tests[0]!.asks === "value",
    (match) => formOf(match) !== "run" || containing(got, { in: body })(match) !== false,
    (match) => !match.has(read) || containing(got, { in: read })(match) !== false,
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
    oneMethod(fallback, (match) =>
      formOf(match) === "mapped" ? typeOf(match.the(read))?.name : typeArguments(match.the(maybe))[0],
    ),
    condition("the Optional is the same where it is read", isLeftAlone),
  ],
  becomes: (match) => {
    const form = formOf(match);
    if (form === "run")
      return java`
        ${maybe}.ifPresent(${value} -> {
          ${each(got, { in: body }).becomes(value)}
        });
      `;
    if (form === "insisted") return java.expression`${maybe}.orElseThrow(() -> ${error})`;
    const mapped = each(got, { in: read }).becomes(value);
    if (isMappable(match)) return java.expression`${maybe}.map(${value} -> ${mapped})`;
    if (form === "wrapped") return java.expression`${maybe}.flatMap(${value} -> Optional.of(${mapped}))`;
    if (form === "flat") return java.expression`${maybe}.flatMap(${value} -> ${mapped})`;
    if (form === "mapped") {
      return isPlain(match)
        ? java.expression`${maybe}.map(${value} -> ${mapped}).orElse(${fallback})`
        : java.expression`${maybe}.map(${value} -> ${mapped}).orElseGet(() -> ${fallback})`;
    }
    return isPlain(match)
      ? java.expression`${maybe}.orElse(${fallback})`
      : java.expression`${maybe}.orElseGet(() -> ${fallback})`;
  },
  cautions: (match) =>
    formOf(match) === "mapped" && !isNeverNull(match.the(read))
      ? [
          caution(
            "value.null",
            `when \`${shortened(match.textOf(read))}\` is null, the old code gave null and the new one the default`,
          ),
        ]
      : [],
  trials: [
    holds(
      "import java.util.Optional;\nclass A { void put(Object o) { } void put(String s) { } void f(Optional<Object> o, String none) { if (o.isPresent()) put(o.get()); else put(none); } }",
      "two methods of the name `put`",
    ),
    rewrites(
      "import java.util.Optional;\nclass A { void put(String s) { } void f(Optional<String> o, String none) { if (o.isPresent()) put(o.get()); else put(none); } }",
      "import java.util.Optional;\nclass A { void put(String s) { } void f(Optional<String> o, String none) { put(o.orElse(none)); } }",
    ),
    rewrites(
      inMethod('return queen.isPresent() ? queen.get() : "none";'),
      inMethod('return queen.orElse("none");'),
    ),
    rewrites(
      inMethod('String q = "none";\n        if (queen.isPresent()) q = queen.get();\n        return q;'),
      inMethod('String q = queen.orElse("none");\n        return q;'),
    ),
    rewrites(
      inMethod('return queen.isEmpty() ? "none" : queen.get();'),
      inMethod('return queen.orElse("none");'),
    ),
    rewrites(
      inMethod('return queen.isPresent() ? queen.get().trim() : "none";'),
      inMethod('return queen.map(value -> value.trim()).orElse("none");'),
      "likely",
    ),
    rewrites(
      inMethod(
        'if (queen.isPresent()) {\n            return "a" + queen.get();\n        }\n        return "none";',
      ),
      inMethod('return queen.map(value -> "a" + value).orElse("none");'),
      "likely",
    ),
    rewrites(
      inMethod("if (queen.isEmpty()) throw new IllegalStateException();\n        return queen.get();"),
      inMethod("return queen.orElseThrow(() -> new IllegalStateException());"),
    ),
    rewrites(
      inMethod("return queen.isPresent() ? Optional.ofNullable(find(queen.get())) : Optional.empty();"),
      inMethod("return queen.map(value -> find(value));"),
      "likely",
    ),
    rewrites(
      inMethod(
        'if (queen.isPresent()) {\n            return Optional.of("a" + queen.get());\n        } else {\n            return Optional.empty();\n        }',
      ),
      inMethod('return queen.map(value -> "a" + value);'),
    ),
    // `of` throws for null, of which `map` makes nothing.
    rewrites(
      inMethod("return queen.isPresent() ? Optional.of(find(queen.get())) : Optional.empty();"),
      inMethod("return queen.flatMap(value -> Optional.of(find(value)));"),
      "likely",
    ),
    rewrites(
      inMethod("if (!queen.isPresent()) return Optional.empty();\n        return lookUp(queen.get());"),
      inMethod("return queen.flatMap(value -> lookUp(value));"),
      "likely",
    ),
    ignores(inMethod('return list.isEmpty() ? "none" : list.get(0);')),
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
    rewrites(
      inMethod(
        'if (queen.isPresent()) {\n            return mark(queen.get());\n        }\n        return "";',
      ),
      inMethod('return queen.map(value -> mark(value)).orElse("");'),
      "likely",
    ),
    holds(
      inMethod(
        'if (queen.isPresent()) {\n            mark(queen.get());\n            return null;\n        }\n        return "";',
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
