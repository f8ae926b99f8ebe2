import {
  condition,
  cpp,
  each,
  exitsOf,
  holes,
  jumpOf,
  nameInFile,
  no,
  referencesAt,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isConstant, isMadeAlike, isNumber } from "./once.js";

const { type, name, branches, value } = holes({
  type: "type",
  name: "name",
  branches: { kind: "statement", node: ["if_statement", "switch_statement"] },
  value: "expression",
});

/** The statement that gives the variable its value, where it stands at the end of some way; all ways must have one. */
function lastOf(statement: SyntaxNode | undefined, own: string): readonly SyntaxNode[] | undefined {
  if (!statement) return undefined;
  if (statement.is(["compound_statement", "else_clause"])) return lastOf(statement.lastPart, own);
  if (statement.is("if_statement")) {
    const ways = [statement.child("consequence"), statement.child("alternative")].map((way) =>
      lastOf(way, own),
    );
    return ways.every((way) => way !== undefined) ? ways.flat() : undefined;
  }
  if (statement.is("switch_statement")) return lastOfCases(statement, own);
  if (statement.is("throw_statement")) return [];
  const given = statement.is("expression_statement") ? statement.firstPart : undefined;
  const isGiven =
    given?.is("assignment_expression") === true &&
    given.child("operator")?.text === "=" &&
    given.child("left")?.text === own &&
    !given.child("right")!.is("initializer_list");
  return isGiven ? [statement] : undefined;
}

/** Each case ends in a value and a `break`, or goes on into the next, and one of them is the default. */
function lastOfCases(statement: SyntaxNode, own: string): readonly SyntaxNode[] | undefined {
  const cases = statement.child("body")?.parts ?? [];
  if (!cases.some((one) => one.has("default"))) return undefined;
  const found: SyntaxNode[] = [];
  for (const [i, one] of cases.entries()) {
    const value = one.child("value");
    const code = one.parts.filter((part) => !part.same(value));
    if (code.length === 0 && i < cases.length - 1) continue;
    const last = code.at(-1);
    const isLeft = last?.is("break_statement") === true;
    const ends = isLeft || i === cases.length - 1 || last?.is("throw_statement") === true;
    const given = ends ? lastOf(isLeft ? code.at(-2) : last, own) : undefined;
    if (!given) return undefined;
    found.push(...given);
  }
  return found;
}

/** Is the variable given its value once on every way, and named nowhere else in the branches? */
function isGivenOnce(match: Match): boolean {
  const own = match.textOf(name);
  const all = match.the(branches);
  const given = lastOf(all, own);
  return given !== undefined && given.length > 1 && all.mentions(own).length === given.length;
}

/** One `if` with a value each way is a conditional expression, which says it shorter. */
function isMore(match: Match): boolean {
  const all = match.the(branches);
  if (all.is("switch_statement")) return true;
  const ways = [all.child("consequence"), all.child("alternative")?.firstPart];
  return ways.some(
    (way) => way?.is("if_statement") === true || (way?.is("compound_statement") && way.parts.length > 1),
  );
}

/** What is left from the branches is the function around them, and not the one that is called on the spot. */
function isLeftByNothing(match: Match): Answer {
  const all = match.the(branches);
  const isOwnBreak = (exit: SyntaxNode): boolean =>
    jumpOf(exit) === "break" && (exit.closest(["switch_statement"])?.start ?? -1) >= all.start;
  const exit = exitsOf([all]).find((one) => jumpOf(one) !== "throw" && !isOwnBreak(one));
  if (exit) return no("flow.leaves-early", `\`${shortened(exit.text)}\` leaves more than the branches`, exit);
  for (const node of all.descendants()) {
    if (node.kind.startsWith("preproc_") || node.is(["labeled_statement", "gnu_asm_expression"]))
      return no("form.fits", `\`${shortened(node.text)}\` may not stand in a function of its own`, node);
    if (/^(__func__|__FUNCTION__|__PRETTY_FUNCTION__|alloca|va_arg)$/.test(node.text) && node.isLeaf)
      return no("form.fits", `\`${node.text}\` means something else in a function of its own`, node);
    if (isBoundPart(node))
      return no("name.scope", `\`${node.text}\` is a part of something, which a lambda cannot take`, node);
  }
  const macro = [...all.descendants()].find((node) => isMacro(node));
  return macro
    ? unknown("flow.leaves-early", `\`${macro.text}\` could be a macro that leaves the function`, macro)
    : yes("flow.leaves-early", "nothing leaves the branches but by their end");
}

/** Before C++17 a function that the compiler may run has no lambdas in it. */
function mayHaveLambda({ node }: Match): Answer {
  const around = node.closest(["function_definition"]);
  const word = around?.parts.find((part) => /^(constexpr|consteval)$/.test(part.text));
  return word
    ? no("form.fits", `a \`${word.text}\` function has no lambdas before C++17`, word)
    : yes("form.fits", "the function may have a lambda in it");
}

const isBoundPart = (node: SyntaxNode): boolean =>
  node.is("identifier") &&
  referencesAt(node).some(({ to }) => to?.at[0]!.parent?.is("structured_binding_declarator"));

/** A name in capitals that is called or stands alone, which nothing in the file declares as a function. */
function isMacro(node: SyntaxNode): boolean {
  if (!node.is("identifier") || !/^[A-Z][A-Z\d_]*$/.test(node.text)) return false;
  const { parent } = node;
  const isCode = parent?.is("expression_statement") === true || node.field === "function";
  const { declarations } = nameInFile(node.text, node.tree);
  return isCode && !declarations.some(({ at }) => at[0]!.parent?.is("function_declarator"));
}

const { rewrites, ignores, holds } = trialsIn("cpp");
const inFunction = (code: string): string => `void f(int a, bool b) {\n  ${code}\n}\n`;

export const initialisedByFunction = rule({
  id: "cpp/initialised-by-function",
  kind: "idiom",
  title: "Work out a constant in a function that is called where it is declared",
  why: "Between the declaration and the branches the variable holds anything, and it cannot be a constant.",
  taste: true,
  target: "11",
  was: [cpp`${type} ${name}; ${branches}`, cpp`${type} *${name}; ${branches}`],
  where: [
    (match) => !/\b(static|extern|const|thread_local|auto)\b/.test(match.textOf(type)),
    (match) => !match.node.parts.some((part) => part.is("storage_class_specifier")),
    isGivenOnce,
    isMore,
    (match) => isConstant(match, match.the(name), kindOf(match)),
  ],
  given: [
    condition("nothing leaves the branches but by their end", isLeftByNothing),
    condition("the function may have a lambda in it", mayHaveLambda),
    condition("the variable is made of its value as it was assigned it", (match) =>
      isPointer(match) ? yes("type.is", "it is a pointer", match.the(name)) : isMadeAlike(match.the(type)),
    ),
  ],
  becomes: (match) => {
    const given = each(cpp`${name} = ${value}; break;`, { in: branches }).becomes(cpp`return ${value};`);
    const code = each(cpp`${name} = ${value};`, { in: given }).becomes(cpp`return ${value};`);
    return isPointer(match)
      ? cpp`
          ${type}* const ${name} = [&]() -> ${type}* {
            ${code}
          }();
        `
      : cpp`
          const ${type} ${name} = [&]() -> ${type} {
            ${code}
          }();
        `;
  },
  trials: [
    rewrites(
      inFunction(
        "int n;\n  if (a > 2) {\n    n = 1;\n  } else if (b) {\n    log(a);\n    n = 2;\n  } else {\n    n = 3;\n  }\n  return n + 1;",
      ),
      inFunction(
        "const int n = [&]() -> int {\n    if (a > 2) {\n      return 1;\n    } else if (b) {\n      log(a);\n      return 2;\n    } else {\n      return 3;\n    }\n  }();\n  return n + 1;",
      ),
    ),
    rewrites(
      inFunction(
        "double d;\n  switch (a) {\n  case 1:\n    d = 0.5;\n    break;\n  case 2:\n  case 3:\n    d = 2;\n    break;\n  default:\n    throw a;\n  }\n  return d * 2;",
      ),
      inFunction(
        "const double d = [&]() -> double {\n    switch (a) {\n    case 1:\n      return 0.5;\n    case 2:\n    case 3:\n      return 2;\n    default:\n      throw a;\n    }\n  }();\n  return d * 2;",
      ),
    ),
    rewrites(
      inFunction(
        "Hive *h;\n  if (b) {\n    log(a);\n    h = first();\n  } else\n    h = nullptr;\n  if (h) h->weigh();",
      ),
      inFunction(
        "Hive * const h = [&]() -> Hive* {\n    if (b) {\n      log(a);\n      return first();\n    } else\n      return nullptr;\n  }();\n  if (h) h->weigh();",
      ),
    ),
    rewrites(
      inFunction(
        'std::string s;\n  if (b) {\n    log(a);\n    s = "b";\n  } else {\n    s = "a";\n  }\n  if (s == t) stop();',
      ),
      inFunction(
        'const std::string s = [&]() -> std::string {\n    if (b) {\n      log(a);\n      return "b";\n    } else {\n      return "a";\n    }\n  }();\n  if (s == t) stop();',
      ),
      "likely",
    ),
    rewrites(
      inFunction(
        "int n;\n  if (b) {\n    CHECK(a);\n    n = 1;\n  } else {\n    n = 2;\n  }\n  return n + 1;",
      ),
      inFunction(
        "const int n = [&]() -> int {\n    if (b) {\n      CHECK(a);\n      return 1;\n    } else {\n      return 2;\n    }\n  }();\n  return n + 1;",
      ),
      "likely",
    ),
    holds(
      inFunction(
        "int n;\n  if (b) {\n    if (a) return;\n    n = 1;\n  } else {\n    n = 2;\n  }\n  if (n > 1) stop();",
      ),
      "leaves more",
    ),
    holds(
      inFunction(
        "for (;;) {\n    int n;\n    if (b) {\n      if (a) break;\n      n = 1;\n    } else {\n      n = 2;\n    }\n    if (n > 1) stop();\n  }",
      ),
      "leaves more",
    ),
    holds(
      inFunction(
        "int n;\n  if (b) {\n    log(__func__);\n    n = 1;\n  } else {\n    n = 2;\n  }\n  if (n > 1) stop();",
      ),
      "means something else",
    ),
    holds(
      inFunction(
        "auto [p, q] = two();\n  int n;\n  if (p) {\n    log(a);\n    n = 1;\n  } else {\n    n = 2;\n  }\n  if (n > 1) stop();",
      ),
      "a lambda cannot take",
    ),
    holds(
      "constexpr int f(bool b) {\n  int n;\n  if (b) {\n    log();\n    n = 1;\n  } else {\n    n = 2;\n  }\n  return n + 1;\n}\n",
      "has no lambdas",
    ),
    ignores(
      inFunction(
        "volatile int n;\n  if (b) {\n    log(a);\n    n = 1;\n  } else {\n    n = 2;\n  }\n  return n + 1;",
      ),
    ),
    // On some way it has no value, or another one later.
    ignores(
      inFunction(
        "int n;\n  if (b) {\n    log(a);\n    n = 1;\n  } else if (a) {\n    n = 2;\n  }\n  return n + 1;",
      ),
    ),
    ignores(
      inFunction(
        "int n;\n  switch (a) {\n  case 1:\n    n = 1;\n    break;\n  case 2:\n    n = 2;\n  }\n  return n + 1;",
      ),
    ),
    ignores(
      inFunction(
        "int n;\n  switch (a) {\n  case 1:\n    n = 1;\n  default:\n    n = 2;\n  }\n  return n + 1;",
      ),
    ),
    ignores(inFunction("int n;\n  if (b) {\n    log(a);\n    n = 1;\n  } else {\n    n = 2;\n  }\n  n++;")),
    ignores(
      inFunction(
        "int n;\n  if (b) {\n    n = 1;\n    log(n);\n    n = 3;\n  } else {\n    n = 2;\n  }\n  return n + 1;",
      ),
    ),
    ignores(
      inFunction("int n;\n  if (b) {\n    n = 1;\n    log(a);\n  } else {\n    n = 2;\n  }\n  return n + 1;"),
    ),
    ignores(inFunction("int n;\n  if (b) n = 1; else n = 2;\n  return n + 1;")),
    ignores(
      inFunction(
        "static int n;\n  if (b) {\n    log(a);\n    n = 1;\n  } else {\n    n = 2;\n  }\n  return n + 1;",
      ),
    ),
  ],
});

function kindOf(match: Match): "pointer" | "scalar" | "object" {
  return isPointer(match) ? "pointer" : isNumber(match.the(type)) ? "scalar" : "object";
}

/** Is it declared with a star? */
function isPointer(match: Match): boolean {
  return match.the(name).parent?.is("pointer_declarator") === true;
}
