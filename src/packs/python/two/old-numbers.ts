import { holes, ofKind, rule, text, trialsIn } from "../../../core.js";

const { number } = holes({ number: { kind: "expression", node: "integer" } });

/** The number as Python 3 writes it; undefined for one that it reads already. */
function present(code: string): string | undefined {
  const octal = /^0([0-7]+)[lL]?$/.exec(code)?.[1];
  if (octal !== undefined && !/^0+$/.test(octal)) return `0o${octal.replace(/^0+/, "")}`;
  return /[lL]$/.test(code) ? code.slice(0, -1) : undefined;
}

const { rewrites, ignores } = trialsIn("python");

export const oldNumbers = rule({
  id: "python/old-numbers",
  kind: "breaks",
  title: "Write octal and long numbers as Python 3 does",
  why: "Python 3 takes a leading zero and a trailing L for mistakes.",
  was: ofKind(number, { when: (node) => present(node.text) !== undefined }),
  target: "3",
  becomes: (match) => [text(present(match.textOf(number))!)],
  trials: [
    rewrites("mode = 0644\n", "mode = 0o644\n"),
    rewrites("f(0022, 0777L)\n", "f(0o22, 0o777)\n"),
    rewrites("n = 10L + 0xFFL\n", "n = 10 + 0xFF\n"),
    ignores("n = 0\nm = 00\nk = 10\n"),
    ignores("n = 0o644 + 0x1F + 0b1\n"),
    ignores("x = 0.5 + 07.5\n"),
    ignores('s = "0644"\n'),
  ],
});
