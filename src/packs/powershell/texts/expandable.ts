import { condition, holes, ofKind, rule, shortened, text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";

const { sum } = holes({ sum: { kind: "expression", node: "additive_expression" } });

/** The pieces of a text that is put together with `+`, in their order; undefined where something is taken away. */
function piecesOf(node: SyntaxNode): SyntaxNode[] | undefined {
  const [left, right, ...more] = node.parts;
  if (!left || !right || more.length > 0) return undefined;
  if (node.tree.text.slice(left.end, right.start).trim() !== "+") return undefined;
  const ahead = left.is("additive_expression") ? piecesOf(left) : [left];
  return ahead && [...ahead, right];
}

const isText = (node: SyntaxNode): boolean => /^(?:"[^"\n]*"|'(?:[^'\n]|'')*')$/.test(node.text);
const VARIABLE = /^\$(?:\w+:)?\w+$/;

/** The new text without its quotes; undefined where a piece has no place in one. */
function expanded(node: SyntaxNode): string | undefined {
  const pieces = piecesOf(node);
  if (!pieces || node.parent?.is("additive_expression") || !isText(pieces[0]!)) return undefined;
  if (pieces.every(isText)) return undefined;
  const codes = pieces.map(codeOf);
  let all = "";
  for (const [i, code] of codes.entries()) {
    const next = codes[i + 1];
    if (code === undefined) return undefined;
    const goesOn = next !== undefined && /^[\p{L}\p{N}_:?]/u.test(next);
    if (!goesOn) all += code;
    else if (VARIABLE.test(code)) all += `\${${code.slice(1)}}`;
    else if (/\$[\p{L}\p{N}_:?]*$/u.test(code)) return undefined;
    else all += code;
  }
  return all;
}

/** A piece as it stands in a text that is expanded. */
function codeOf(piece: SyntaxNode): string | undefined {
  const code = piece.text;
  if (isText(piece))
    return code.startsWith('"')
      ? code.slice(1, -1).replace(/(?<!`)((?:``)*)\$$/, "$1`$$")
      : code.slice(1, -1).replaceAll("''", "'").replace(/[`$"]/g, "`$&");
  if (VARIABLE.test(code)) return code;
  if (/^\d+$/.test(code) && !/^0\d/.test(code)) return code;
  const isPart = piece.is("member_access") && /^\$(?:\w+:)?\w+(?:\.\w+)+$/.test(code);
  return isPart ? `$(${code})` : undefined;
}

/** What stands in brackets is run like a pipeline, which takes lists apart and does not stop the statement around it. */
function isPlain({ node }: Match): Answer {
  const part = piecesOf(node)!.find((piece) => piece.is("member_access"));
  return part
    ? unknown(
        "value.result",
        `\`${shortened(part.text)}\` could be a list of lists, or fail in strict mode`,
        part,
      )
    : yes("value.result", "only variables and texts are put together", node);
}

const { rewrites, ignores } = trialsIn("powershell");

export const expandable = rule({
  id: "powershell/expandable",
  kind: "idiom",
  title: "Write values into a text instead of adding them to it",
  why: "Between quotes and plus signs the text itself cannot be read.",
  was: ofKind(sum, { when: (node) => !node.text.includes("\n") && (expanded(node)?.length ?? 200) < 120 }),
  given: [condition("each piece is put into the text as it was added", isPlain)],
  becomes: ({ node }) => [text(`"${expanded(node)!}"`)],
  trials: [
    rewrites('$line = "Hive " + $name + "."\n', '$line = "Hive $name."\n'),
    rewrites("Write-Host ('Hive ' + $name + ': ' + $kg)\n", 'Write-Host ("Hive ${name}: $kg")\n'),
    rewrites('$line = "" + $env:USER + "s" + 3\n', '$line = "${env:USER}s3"\n'),
    rewrites(`$line = 'costs $ "' + $price + 'x'\n`, '$line = "costs `$ `"${price}x"\n'),
    rewrites(
      '$line = "Hive " + $hive.Name + " is calm"\n',
      '$line = "Hive $($hive.Name) is calm"\n',
      "likely",
    ),
    rewrites("$line = 'it''s ' + $name\n", '$line = "it\'s $name"\n'),
    rewrites('$line = "costs $" + $price\n', '$line = "costs `$$price"\n'),
    rewrites('$line = "Hive " + $name + "é"\n', '$line = "Hive ${name}é"\n'),
    ignores('$line = "Hive $first" + "st" + $name\n'),
    // Two names that touch stay two.
    rewrites('$line = "$first" + $second + "a"\n', '$line = "$first${second}a"\n'),
    ignores('$line = $name + " is calm"\n'),
    ignores('$line = "a" + "b"\n'),
    ignores('$line = "a" - $b\n'),
    ignores('$line = "Hive " + (Get-Name $hive)\n'),
    ignores('$line = "Hive " + $hive.GetName()\n'),
    ignores('$line = "Hive " + $list[0]\n'),
    ignores('$line = "Hive " +\n  $name\n'),
    ignores("$sum = 3 + $kg\n"),
    ignores('$line = "Hive $name"\n'),
  ],
});
