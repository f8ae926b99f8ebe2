import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { growingAt, scopeOf, type Add } from "./growing.js";
import { outputOf } from "./output.js";

const { start } = holes({ start: { kind: "statement", node: "assignment_expression" } });

/** Nothing may look at the list while it grows. */
function isNotReadMeanwhile(match: Match): Answer {
  const { loop, reads, name } = growingAt(match.the(start))!;
  const read = reads.find((one) => one.start < loop.end);
  return read
    ? no("flow.order", `\`${name.text}\` is read while it grows`, read)
    : yes("flow.order", `\`${name.text}\` is not read before the loop is over`);
}

/** What other statements of the loop put out would be among the values. */
function leaksNothing(match: Match): Answer {
  const { others } = growingAt(match.the(start))!;
  const loud = others.find((one) => outputOf(one) === "something");
  if (loud) return no("value.result", `\`${shortened(loud.text)}\` puts out something else`, loud);
  const open = others.find((one) => outputOf(one) === "unknown");
  return open
    ? unknown("value.result", `\`${shortened(open.text)}\` could put out something too`, open)
    : yes("value.result", "nothing else in the loop puts out anything");
}

/** Expressions that always have a value, if only `$null`. */
const PLAIN = [
  "member_access",
  "element_access",
  "hash_literal_expression",
  "cast_expression",
  "expression_with_unary_operator",
  "array_literal_expression",
  "additive_expression",
  "multiplicative_expression",
  "format_expression",
  "post_increment_expression",
  "pre_increment_expression",
];

function isPlain(node: SyntaxNode, depth = 0): boolean {
  if (node.is("variable")) return depth < 4 && valuesOf(node).every((value) => isPlain(value, depth + 1));
  return (
    node.is(PLAIN) || /literal/.test(node.kind) || (node.is("command") && /^new-object\b/i.test(node.text))
  );
}

/** What a variable is given in its function: what a command gives may be nothing, and stays so in a variable. */
function valuesOf(variable: SyntaxNode): SyntaxNode[] {
  const name = variable.text.toLowerCase();
  return [...scopeOf(variable).descendants()].flatMap((node) =>
    node.is("assignment_expression") && node.firstPart!.text.toLowerCase() === name
      ? [node.child("value") ?? node.lastPart!]
      : [],
  );
}

/** A command that gives nothing adds `$null` to a list, and nothing to what is streamed. */
function givesOneEach(match: Match): Answer {
  const { adds } = growingAt(match.the(start))!;
  const value = adds.map((one) => one.value).find((one) => !isPlain(one));
  return value
    ? unknown(
        "value.null",
        `\`${shortened(value.text)}\` could give nothing, for which the list got $null`,
        value,
      )
    : yes("value.null", "each time there is a value");
}

/** Values that are one thing whatever is in them: texts, numbers, and objects that are written out. */
const SINGLE =
  /^(?:(?!array).*literal.*|verbatim_string_characters|format_expression|expandable_string_literal|post_increment_expression)$/;

/** `Add` puts a list into the list as one value, and what is streamed comes item by item. */
function comesWhole(match: Match): Answer {
  const { adds } = growingAt(match.the(start))!;
  const isSingle = ({ value }: Add): boolean =>
    SINGLE.test(value.kind) ||
    /^\[(pscustomobject|int|long|double|string|bool|datetime|guid)\]/i.test(value.text);
  const open = adds.find((one) => !isSingle(one));
  return open
    ? unknown(
        "value.kind",
        `\`${shortened(open.value.text)}\` could be a list, whose items would come one by one`,
        open.value,
      )
    : yes("value.kind", "each value is one thing");
}

/** A list with a type makes its items of that type, and an `ArrayList` puts out where each went. */
function addsOnly(match: Match): Answer {
  const { made, adds } = growingAt(match.the(start))!;
  const loud = adds.find(
    ({ statement }) => made!.is === "ArrayList" && statement.is("invocation_expression"),
  );
  if (loud)
    return no(
      "value.result",
      `\`${shortened(loud.statement.text)}\` puts out the position too`,
      loud.statement,
    );
  const { items } = made!;
  return items === undefined || /^(system\.)?(object|psobject|pscustomobject)$/i.test(items)
    ? yes("value.kind", "the list takes the values as they are")
    : unknown("value.kind", `the list makes a \`${items}\` of each value`, match.node);
}

/** What a list of the library can do, and an array as well. */
const SHARED = /^(count|contains|indexof|getenumerator|clone)$/i;

/** An array has no `Add`, and a command may want a list. */
function isReadAsArray(match: Match): Answer {
  const { given, reads, name } = growingAt(match.the(start))!;
  if (given) return yes("value.kind", "the caller gets the values one by one, as before");
  for (const read of reads) {
    const above = read.parent;
    const isAsked = above?.is(["member_access", "invocation_expression"]) && above.firstPart!.same(read);
    const asked = isAsked ? above?.parts[1]?.text : undefined;
    if (asked !== undefined && !SHARED.test(asked))
      return no("value.kind", `an array has no \`${asked}\``, read);
    const isWalked =
      asked !== undefined ||
      above?.is(["foreach_statement", "pipeline_chain", "element_access", "statement_list"]) === true;
    if (!isWalked)
      return unknown("value.kind", `\`${shortened(above?.text ?? "")}\` could want a list that grows`, read);
  }
  return yes("value.kind", `\`${name.text}\` is only walked, counted and looked into`);
}

const isMade = (match: Match): boolean => growingAt(match.the(start))!.made !== undefined;

/** When something fails in between, the list was not there for those behind, and what is streamed has gone out. */
function failsAlike(match: Match): Answer {
  const { adds, given, loop, reads } = growingAt(match.the(start))!;
  const leaves = [...loop.descendants()].find(
    (one) => one.is("flow_control_statement") && /^(return|exit)\b/i.test(one.text),
  );
  if (leaves)
    return no("flow.leaves-early", `\`${shortened(leaves.text)}\` leaves before the list is given`, leaves);
  const caught = match.node.closest(["try_statement"]);
  const outside = reads.find(
    (one) => caught && !one.closest(["statement_block"])?.same(match.node.closest(["statement_block"])),
  );
  if (outside)
    return unknown("flow.throws", "when the loop fails, what was there by then could be read", outside);
  const isAdding = (node: SyntaxNode): boolean =>
    adds.some(({ statement, value }) => statement.holds(node) && !value.holds(node));
  const called =
    given &&
    [...loop.descendants()].find(
      (one) =>
        (one.is(["command", "invocation_expression"]) && !isAdding(one)) ||
        (one.is("flow_control_statement") && /^throw\b/i.test(one.text)),
    );
  return called
    ? unknown(
        "flow.throws",
        `when \`${shortened(called.text)}\` fails, the values before it are out already`,
        called,
      )
    : yes("flow.throws", "it makes no difference where the loop fails");
}

/** A name with a scope in front may stand for the same list. */
function isSeenByNobody(match: Match): Answer {
  const { name } = growingAt(match.the(start))!;
  const scope = scopeOf(match.the(start));
  const scoped = [...scope.descendants()].find(
    (one) => one.is("variable") && one.text.toLowerCase().endsWith(`:${name.text.slice(1).toLowerCase()}`),
  );
  if (scoped) return no("name.scope", `\`${scoped.text}\` may be the same list`, scoped);
  return yes("name.scope", "the list is a variable of this function");
}

function streamed(match: Match): Segment[] {
  const { start: first, name, loop, adds, given } = growingAt(match.the(start))!;
  const code = first.tree.text;
  const gap = /^[ \t]*;?\s*/.exec(code.slice(first.end))![0].length;
  const edits: Edit[] = [{ start: first.start, end: first.end + gap, text: "" }];
  for (const { statement, value } of adds) {
    const isStep = value.is([
      "post_increment_expression",
      "post_decrement_expression",
      "pre_increment_expression",
      "pre_decrement_expression",
      "assignment_expression",
    ]);
    edits.push({ start: statement.start, end: value.start, text: isStep ? "(" : "" });
    if (isStep || value.end < statement.end)
      edits.push({ start: value.end, end: statement.end, text: isStep ? ")" : "" });
  }
  if (given) {
    const before = /\s*$/.exec(code.slice(loop.end, given.start))![0].length;
    edits.push({ start: given.start - before, end: given.end, text: "" });
  } else {
    edits.push({ start: loop.start, end: loop.start, text: `${name.text} = @(` });
    edits.push({ start: loop.end, end: loop.end, text: ")" });
  }
  const end = given?.end ?? loop.end;
  return [
    copy(
      first.start,
      end,
      edits.sort((a, b) => a.start - b.start || a.end - b.end),
    ),
  ];
}

/** All from the empty list to the end of the loop, or to what gives it to the caller. */
function together(node: SyntaxNode): SyntaxNode[] {
  const { loop, given } = growingAt(node)!;
  const end = given?.end ?? loop.end;
  return node.parent!.parts.filter((one) => one.start >= node.start && one.end <= end);
}

const { rewrites, ignores, holds } = trialsIn("powershell");

export const streamedList = rule({
  id: "powershell/streamed",
  kind: "idiom",
  title: "Stream values instead of growing a list in a loop",
  why: "The caller waits for the whole list, and `+=` copies it for each value, which takes time with the square of them.",
  was: ofKind(start, { when: (node) => growingAt(node) !== undefined, together }),
  mentions: ["+=", ".Add(", ".add("],
  given: [
    condition("the list is not read while it grows", isNotReadMeanwhile),
    condition("nothing else comes between the values", leaksNothing),
    condition("there is a value each time", givesOneEach),
    condition("each value comes as one", comesWhole, { when: isMade }),
    condition("the list only takes values in", addsOnly, { when: isMade }),
    condition("an array does as well", isReadAsArray, { when: isMade }),
    condition("a failure in the loop means the same", failsAlike),
    condition("the list is this function's own", isSeenByNobody),
  ],
  becomes: streamed,
  trials: [
    rewrites(
      `
      function Get-Name($hives) {
          $names = @()
          foreach ($hive in $hives) {
              $names += $hive.Name
          }
          return $names
      }
      `,
      `
      function Get-Name($hives) {
          foreach ($hive in $hives) {
              $hive.Name
          }
      }
      `,
    ),
    rewrites(
      `
      $names = @()
      foreach ($hive in $hives) {
          if ($hive.Full) { continue }
          # The name.
          $names += $hive.Name
          $Names += [pscustomobject]@{ Age = 1 }
          Write-Host "one"
          $n++
      }
      $names | Export-Csv names.csv
      Write-Host $names.Count
      `,
      `
      $names = @(foreach ($hive in $hives) {
          if ($hive.Full) { continue }
          # The name.
          $hive.Name
          [pscustomobject]@{ Age = 1 }
          Write-Host "one"
          $n++
      })
      $names | Export-Csv names.csv
      Write-Host $names.Count
      `,
    ),
    rewrites(
      "$all = @()\n$hives | ForEach-Object { $all += $_.Name }\n$all.Count",
      "$all = @($hives | ForEach-Object { $_.Name })\n$all.Count",
    ),
    rewrites(
      "$all = @()\nfor ($i = 0; $i -lt 3; $i++) { $all += $i }\n$all.Count",
      "$all = @(for ($i = 0; $i -lt 3; $i++) { $i })\n$all.Count",
    ),
    rewrites(
      "$all = @()\n$i = 0\nwhile ($i -lt 3) { $all += $i++ }\n$all.Count",
      "$i = 0\n$all = @(while ($i -lt 3) { ($i++) })\n$all.Count",
    ),
    rewrites(
      "$all = @()\nforeach ($h in $hives) { $all += Get-Item $h }\n$all.Count",
      "$all = @(foreach ($h in $hives) { Get-Item $h })\n$all.Count",
      "likely",
    ),
    rewrites(
      "$all = @()\nforeach ($h in $hives) { $h.Weigh(); $all += $h.Weight }\n$all.Count",
      "$all = @(foreach ($h in $hives) { $h.Weigh(); $h.Weight })\n$all.Count",
      "likely",
    ),
    // What the command gives may be nothing.
    rewrites(
      "$all = @()\nforeach ($h in $hives) { $i = Get-Item $h; $all += $i }\n$all.Count",
      "$all = @(foreach ($h in $hives) { $i = Get-Item $h; $i })\n$all.Count",
      "likely",
    ),
    rewrites(
      "function F($hives) {\n    $all = [System.Collections.Generic.List[object]]::new()\n    foreach ($h in $hives) {\n        $all.Add([pscustomobject]@{ Kg = $h.Kg })\n    }\n    return $all\n}",
      "function F($hives) {\n    foreach ($h in $hives) {\n        [pscustomobject]@{ Kg = $h.Kg }\n    }\n}",
    ),
    rewrites(
      'function F($hives) {\n    $all = New-Object System.Collections.ArrayList\n    foreach ($h in $hives) {\n        [void]$all.Add("$h")\n        $null = $all.Add("and")\n        $all.Add("more") | Out-Null\n    }\n    $all\n}',
      'function F($hives) {\n    foreach ($h in $hives) {\n        "$h"\n        "and"\n        "more"\n    }\n}',
    ),
    rewrites(
      '$all = New-Object "System.Collections.Generic.List[object]"\n$hives | ForEach-Object { $all.Add("$_") }\n$all.Count\n$all | Sort-Object',
      '$all = @($hives | ForEach-Object { "$_" })\n$all.Count\n$all | Sort-Object',
    ),
    // A list that is added is one value, and its items would be several.
    rewrites(
      "function F($hives) {\n    $all = [Collections.ArrayList]@()\n    foreach ($h in $hives) { [void]$all.Add($h.Frames) }\n    return $all\n}",
      "function F($hives) {\n    foreach ($h in $hives) { $h.Frames }\n}",
      "likely",
    ),
    rewrites(
      'function F($hives) {\n    $all = [System.Collections.Generic.List[int]]::new()\n    foreach ($h in $hives) { $all.Add("7") }\n    return $all\n}',
      'function F($hives) {\n    foreach ($h in $hives) { "7" }\n}',
      "likely",
    ),
    holds(
      'function F($hives) {\n    $all = New-Object System.Collections.ArrayList\n    foreach ($h in $hives) { $all.Add("$h") }\n    return $all\n}',
      "puts out the position too",
    ),
    holds(
      '$all = [System.Collections.Generic.List[object]]::new()\nforeach ($h in $hives) { $all.Add("$h") }\n$all.Add("last")',
      "an array has no",
    ),
    holds(
      '$all = [System.Collections.Generic.List[object]]::new()\nforeach ($h in $hives) { $all.Add("$h"); if ($all.Count -gt 3) { break } }\n$all | Sort-Object',
      "while it grows",
    ),
    ignores(
      '$all = [System.Collections.Generic.List[object]]::new()\nforeach ($h in $hives) { $other.Add("$h") }\n$all',
    ),
    ignores('$all = @()\nforeach ($h in $hives) { $all.Add("$h") }\n$all'),
    ignores(
      '$all = [System.Collections.Generic.Dictionary[string,int]]::new()\nforeach ($h in $hives) { $all.Add("$h", 1) }\n$all',
    ),
    holds(
      "$all = @()\nforeach ($h in $hives) { if ($all.Count -gt 3) { break }; $all += $h }\n$all",
      "while it grows",
    ),
    holds(
      '$all = @()\nforeach ($h in $hives) { "seen $h"; $all += $h }\n$all.Count',
      "puts out something else",
    ),
    holds(
      "function F {\n$all = @()\nforeach ($h in $hives) { if ($h) { return 1 }; $all += $h }\nreturn $all\n}",
      "leaves before",
    ),
    holds(
      "function F {\n$all = @()\nforeach ($h in $hives) { $all += $h; $script:all = 1 }\nreturn $all\n}",
      "may be the same",
    ),
    ignores("$all = @(1)\nforeach ($h in $hives) { $all += $h }\n$all"),
    ignores("$all = @()\n$all += 1\nforeach ($h in $hives) { $all += $h }\n$all"),
    ignores("$sum = 0\nforeach ($h in $hives) { $sum += $h }\n$sum"),
    ignores("$all = @()\nforeach ($h in $hives) { & { $all += $h } }\n$all"),
    ignores("$all = @()\nforeach ($h in $hives) { Add-One $all }\n$all"),
  ],
});
