import { condition, holes, no, python, rule, trialsIn, yes } from "../../core.js";

const { name, value, body } = holes({ name: "name", value: "expression", body: "statements" });

const IN_LOOP = 2;
const FORMS = [
  python`
    ${name} = ${value}
    if ${name}:
        ${body}
  `,
  python`
    ${name} = ${value}
    if ${name} is not None:
        ${body}
  `,
  python`
    while True:
        ${name} = ${value}
        if not ${name}:
            break
        ${body}
  `,
];

const { rewrites, holds, ignores } = trialsIn("python", "3.8");

export const assignedInTest = rule({
  id: "python/assigned-in-test",
  kind: "idiom",
  title: "Use := to assign in the condition",
  why: "The value is only made to be tested, and the loop that reads and stops has its test in the middle.",
  taste: true,
  target: "3.8",
  was: FORMS,
  given: [
    condition("it fits on the line", (match) => {
      const text = match.textOf(value);
      return /\n/.test(text) || text.length > 60
        ? no("form.fits", "the value is too long to be read in a test", match.the(value))
        : yes("form.fits", "the value is short");
    }),
    condition("the value is no assignment or tuple", (match) => {
      const node = match.the(value);
      return node.is(["assignment", "expression_list", "yield", "lambda"])
        ? no("form.fits", `\`${node.text}\` cannot stand in a test`, node)
        : yes("form.fits", "it can stand in a test");
    }),
    condition("something is done in the loop", (match) =>
      match.alternative === IN_LOOP && match.all(body).length === 0
        ? no("form.worthwhile", "nothing is done in the loop", match.node)
        : yes("form.worthwhile", "something is done"),
    ),
  ],
  becomes: (match) =>
    match.alternative === IN_LOOP
      ? python`
          while ${name} := ${value}:
              ${body}
        `
      : match.alternative === 1
        ? python`
            if (${name} := ${value}) is not None:
                ${body}
          `
        : python`
            if ${name} := ${value}:
                ${body}
          `,
  trials: [
    rewrites("m = find(x)\nif m:\n    use(m)  # it\n", "if m := find(x):\n    use(m)  # it\n"),
    rewrites("m = find(x)\nif m is not None:\n    use(m)\n", "if (m := find(x)) is not None:\n    use(m)\n"),
    rewrites(
      "while True:\n    line = f.readline()\n    if not line:\n        break\n    use(line)\n",
      "while line := f.readline():\n    use(line)\n",
    ),
    holds("m = find(\n    x,\n)\nif m:\n    use(m)\n", "too long"),
    ignores("m = 1, 2\nif m:\n    use(m)\n"),
    holds("while True:\n    line = f.readline()\n    if not line:\n        break\n", "nothing is done"),
    ignores("m = find(x)\nif m:\n    use(m)\nelse:\n    other()\n"),
    ignores("m = find(x)\nif n:\n    use(m)\n"),
    ignores("m.n = find(x)\nif m.n:\n    use(m)\n"),
    trialsIn("python", "3.7").ignores("m = find(x)\nif m:\n    use(m)\n"),
  ],
});
