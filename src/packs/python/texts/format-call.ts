import { holes, python, rule, trialsIn } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import {
  fitsInString,
  isForLogOrTranslation,
  oncePerMatch,
  refusal,
  written,
  type Field,
  type Filled,
} from "./f-string.js";
import { piecesOf, type Piece } from "./literal.js";

const { format, values } = holes({
  format: { kind: "expression", node: ["string", "concatenated_string"] },
  values: "arguments",
});

interface Read {
  readonly filled: readonly Filled[];
  readonly given: readonly SyntaxNode[];
}

/** A name or a number, and reads of it. */
const REFERENCE = /^([A-Za-z_]\w*|\d+|)((?:\.[A-Za-z_]\w*|\[[^\]]+\])*)$/;

/** Reads the fields of a format; what it refuses, it says. */
class FormatReader {
  refused: string | undefined;
  /** The next place that is not named. */
  #next = 0;
  #isNumbered: boolean | undefined;

  constructor(readonly given: ReadonlyMap<string, SyntaxNode>) {}

  /** The text and the fields of a piece, in order. Braces that stand for themselves are single in the text. */
  read(code: string, piece: Piece, isSpec = false): (string | Field)[] {
    const parts: (string | Field)[] = [];
    let plain = "";
    for (let at = 0; at < code.length;) {
      const char = code[at]!;
      if (char !== "{" && char !== "}") {
        plain += char;
        at++;
      } else if (!isSpec && code[at + 1] === char) {
        plain += char;
        at += 2;
      } else if (char === "}") return this.#refuse("the format has a single brace");
      else {
        const end = endOfField(code, at);
        if (end === undefined) return this.#refuse("the format has a single brace");
        const field = this.#field(code.slice(at + 1, end), piece);
        if (!field) return [];
        parts.push(plain, field);
        plain = "";
        at = end + 1;
      }
    }
    return [...parts, plain];
  }

  #refuse(why: string): [] {
    this.refused ??= why;
    return [];
  }

  #field(code: string, piece: Piece): Field | undefined {
    const [, reference = "", conversion, spec] =
      /^([^!:[]*(?:\[[^\]]*\][^!:[]*)*)(?:!([rsa]))?(?::([\s\S]*))?$/.exec(code) ?? [];
    const [whole, name, path = ""] = REFERENCE.exec(reference) ?? [];
    const refuse = (why: string): undefined => void (this.refused ??= why);
    if (whole === undefined || name === undefined) return refuse(`\`{${code}}\` is not understood`);
    if (!/^\D/.test(name)) {
      if (this.#isNumbered === (name === "")) return refuse("some places are numbered, and some are not");
      this.#isNumbered = name !== "";
    }
    const value = this.given.get(name === "" ? String(this.#next++) : name);
    if (!value) return refuse(`there is no value for \`{${code}}\``);
    const why = refusal(value, piece);
    if (why !== undefined) return refuse(why);
    const quote = piece.quote.startsWith('"') ? "'" : '"';
    const reads = path.replace(/\[([^\]]+)\]/g, (_, key: string) =>
      /^\d+$/.test(key) ? `[${key}]` : `[${quote}${key}${quote}]`,
    );
    const inner = spec === undefined ? undefined : this.read(spec, piece, true).filter((part) => part !== "");
    return {
      value,
      ...(reads === "" ? {} : { path: reads }),
      ...(conversion === undefined ? {} : { conversion: conversion as "r" | "s" | "a" }),
      ...(inner === undefined ? {} : { spec: inner }),
    };
  }
}

/** Where the field that begins at a brace ends. */
function endOfField(code: string, from: number): number | undefined {
  let depth = 0;
  for (let at = from; at < code.length; at++) {
    if (code[at] === "{") depth++;
    else if (code[at] === "}" && --depth === 0) return at;
  }
  return undefined;
}

/** The format with its values in their places, or why that cannot be. Undefined where it is no text, or has no places. */
const read = oncePerMatch((match): Read | string | undefined => {
  const pieces = piecesOf(match.the(format));
  if (!pieces || pieces.some(({ content }) => /\\N\{/.test(content))) return undefined;
  if (!pieces.some(({ content }) => content.includes("{"))) return undefined;
  const given = new Map<string, SyntaxNode>();
  for (const value of match.all(values).filter((node) => node.named && !node.is("comment"))) {
    if (value.is(["list_splat", "dictionary_splat"])) return "the values are not listed here";
    const name = value.is("keyword_argument") ? value.child("name")?.text : String(given.size);
    const node = value.is("keyword_argument") ? value.child("value") : value;
    if (name === undefined || !node) return "the values are not listed here";
    given.set(name, node);
  }
  if (given.size === 0) return undefined;
  const reader = new FormatReader(given);
  const filled = pieces.map((piece): Filled => ({ piece, parts: reader.read(piece.content, piece) }));
  return reader.refused ?? { filled, given: [...given.values()] };
});

const { rewrites, ignores, holds } = trialsIn("python");

export const formatCall = rule({
  id: "python/format-call",
  kind: "idiom",
  title: "Use an f-string in place of format",
  why: "The values stand far from the places where they go.",
  was: python`${format}.format(${values})`,
  where: [(match) => read(match) !== undefined, (match) => !isForLogOrTranslation(match.node)],
  given: fitsInString(read),
  becomes: (match) => written((read(match) as Read).filled),
  trials: [
    // What `b` does to `a` shows in the old text, and not in the new one.
    rewrites('s = "{} of {}".format(a, b())\n', 's = f"{a} of {b()}"\n', "likely"),
    rewrites('n = 1\ns = "{} of {} {}".format(n, "x", b())\n', "n = 1\ns = f\"{n} of {'x'} {b()}\"\n"),
    rewrites('s = "{} of {}".format(b(), a)\n', 's = f"{b()} of {a}"\n'),
    holds("s = f\"{'{} of'.format(a)} {b}\"\n", "inside another string"),
    rewrites('s = "{0} {0}".format(a)\n', 's = f"{a} {a}"\n'),
    rewrites('def f(a, b):\n    return "{1} {0}".format(a, b)\n', 'def f(a, b):\n    return f"{b} {a}"\n'),
    rewrites('s = "{name:>5} {x!r:10}".format(name=a.b, x=c)\n', 's = f"{a.b:>5} {c!r:10}"\n'),
    rewrites('s = "{:{}} {}".format(a, w, b)\n', 's = f"{a:{w}} {b}"\n'),
    rewrites('s = "{0.weight} {0[0]} {0[a]}".format(jar)\n', "s = f\"{jar.weight} {jar[0]} {jar['a']}\"\n"),
    rewrites('s = "{0.weight}".format(a + b)\n', 's = f"{(a + b).weight}"\n'),
    rewrites('s = "{{}} {}".format(a)\n', 's = f"{{}} {a}"\n'),
    rewrites('s = ("{{}} "\n     "{}".format(a))\n', 's = ("{} "\n     f"{a}")\n'),
    rewrites('s = "{}".format(d["a"])\n', "s = f\"{d['a']}\"\n"),
    rewrites('s = "{}".format(a if b else c)\n', 's = f"{a if b else c}"\n'),
    rewrites('s = """{}\n""".format(a)\n', 's = f"""{a}\n"""\n'),
    holds('s = "{} {}".format(*pair)\n', "not listed"),
    holds('s = "{} {}".format(a)\n', "no value"),
    holds('s = "{1} {0}".format(f(), g())\n', "calls something"),
    holds('s = "{0}{0}".format(f())\n', "calls something"),
    holds('s = "{}".format("\\n".join(a))\n', "backslash"),
    holds('s = "{}".format(\'it"s\')\n', "quotes"),
    ignores('log.info("{}".format(a))\n'),
    ignores('s = _("{}".format(a))\n'),
    ignores("s = template.format(a)\n"),
    ignores('s = "plain".format(a)\n'),
    ignores('s = "{}".format()\n'),
    trialsIn("python", "3.5").ignores('s = "{}".format(a)\n'),
  ],
});
