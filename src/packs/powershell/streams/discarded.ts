import {
  condition,
  copy,
  holes,
  referencesAt,
  ofKind,
  rule,
  shortened,
  text,
  textFound,
  trialsIn,
  unknown,
  valuesGiven,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { commandName } from "./output.js";

const { pipeline } = holes({ pipeline: { kind: "statement", node: "pipeline_chain" } });

/** `$jars.Add($jar) | Out-Null` as a statement. */
function isThrownAway(node: SyntaxNode): boolean {
  const [call, out, ...more] = node.parts;
  if (!call?.is("invocation_expression") || !out || more.length > 0) return false;
  const isStatement = node.parent?.is("statement_list") === true;
  return isStatement && commandName(out) === "out-null" && out.parts.length === 1;
}

/** Classes of the library whose methods give one value, or none. */
const CLASS = String.raw`(?:system\.)?(?:collections\.(?:arraylist|hashtable|queue|stack|sortedlist|(?:generic|specialized)\.\w+)|text\.stringbuilder)\b`;
const GIVE_ONE = new RegExp(
  String.raw`^(?:new-object\s+(?:-typename\s+)?['"]?${CLASS}|\[${CLASS}[^:]*\]::new\()`,
  "i",
);

const WRITES_ELSEWHERE = /\b(?:set-variable|sv)\b|^\s*\.\s/im;

/** A pipeline runs what a lazy list would give; what is only assigned runs nothing. */
function givesOne({ node }: Match): Answer {
  const call = node.firstPart!;
  const object = call.firstPart!;
  const to = object.is("variable") ? referencesAt(object).find((one) => one.to)?.to : undefined;
  // What is called reads the variables of its caller, and can only write them by a command.
  const isOwn = to !== undefined && to.as !== "parameter";
  const values = isOwn && textFound(node.tree, WRITES_ELSEWHERE) === undefined ? (valuesGiven(to) ?? []) : [];
  const [made] = values;
  return made && values.every((value) => GIVE_ONE.test(value.text))
    ? yes(
        "type.is",
        `\`${object.text}\` is \`${shortened(made.text)}\`, whose methods give one value or none`,
        made,
      )
    : unknown(
        "value.result",
        `\`${shortened(call.text)}\` could give values that are only worked out when they are taken`,
        call,
      );
}

const { rewrites, ignores } = trialsIn("powershell");
const LIST = "$jars = [System.Collections.ArrayList]::new()\n";

export const discarded = rule({
  id: "powershell/discarded",
  kind: "idiom",
  title: "Assign a result that nobody needs to $null",
  why: "A pipeline that only throws one value away takes many times as long as the call.",
  was: ofKind(pipeline, { when: isThrownAway, together: (node) => [node] }),
  mentions: ["Out-Null", "out-null"],
  given: [condition("the call gives one value or none", givesOne)],
  becomes: ({ node }) => {
    const call = node.firstPart!;
    return [text("$null = "), copy(call.start, call.end)];
  },
  trials: [
    rewrites(
      `${LIST}$jars.Add($jar) | Out-Null\n$jars.Count\n`,
      `${LIST}$null = $jars.Add($jar)\n$jars.Count\n`,
    ),
    rewrites(
      "$log = New-Object System.Text.StringBuilder\nif ($jar) {\n    $log.Append($jar).Append('!') | Out-Null\n}\n",
      "$log = New-Object System.Text.StringBuilder\nif ($jar) {\n    $null = $log.Append($jar).Append('!')\n}\n",
      "likely",
    ),
    rewrites(
      "$seen = New-Object 'System.Collections.Generic.HashSet[string]'\n$seen.Add($jar) | out-null # once\n",
      "$seen = New-Object 'System.Collections.Generic.HashSet[string]'\n$null = $seen.Add($jar) # once\n",
    ),
    rewrites(
      `${LIST}. ./jars.ps1\n$jars.Add($jar) | Out-Null\n`,
      `${LIST}. ./jars.ps1\n$null = $jars.Add($jar)\n`,
      "likely",
    ),
    // What a caller hands over, and what is only turned into a type, may be anything.
    rewrites(
      "function Add($Jars) {\n    if (-not $Jars) { $Jars = [System.Collections.ArrayList]::new() }\n    $Jars.Add(1) | Out-Null\n}\n",
      "function Add($Jars) {\n    if (-not $Jars) { $Jars = [System.Collections.ArrayList]::new() }\n    $null = $Jars.Add(1)\n}\n",
      "likely",
    ),
    rewrites(
      "$jars = [System.Collections.Generic.IEnumerable[int]] $lazy\n$jars.Take(1) | Out-Null\n",
      "$jars = [System.Collections.Generic.IEnumerable[int]] $lazy\n$null = $jars.Take(1)\n",
      "likely",
    ),
    rewrites("$shelf.Take($jar) | Out-Null\n", "$null = $shelf.Take($jar)\n", "likely"),
    rewrites(
      "[IO.Directory]::CreateDirectory($path) | Out-Null\n",
      "$null = [IO.Directory]::CreateDirectory($path)\n",
      "likely",
    ),
    // A command may run for long, and gives what it has as it comes.
    ignores("New-Item -Path $path | Out-Null\n"),
    ignores("$jars | Out-Null\n"),
    ignores("$x = $jars.Add($jar) | Out-Null\n"),
    ignores("$jars.Add($jar) | Out-Null -InputObject 3\n"),
    ignores("$jars.Find($jar) | Sort-Object | Out-Null\n"),
    ignores("$null = $jars.Add($jar)\n"),
  ],
});
