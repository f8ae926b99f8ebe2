import {
  caution,
  canThrow,
  condition,
  holes,
  no,
  powershell,
  rule,
  scoped,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Handle, Match, Rule } from "../../core.js";
import { calledIn, rowsFor } from "../family/handles.js";
import {
  keptInPlace,
  nobodyNeedsIt,
  releasedOnce,
  somethingBetween,
  usesInside,
} from "../family/resource.js";

const { name, made, body } = holes({
  name: { kind: "expression", text: /^\$\w+$/ },
  made: "expression",
  body: "statements",
});
const HOLES = { name, body };

/** Classes of .NET that can be disposed of. */
const DISPOSABLE =
  /(Stream|Reader|Writer|Connection|Command|Transaction|Client|Archive|Bitmap|Graphics|Mutex|Semaphore|TcpListener|SHA1|SHA256|SHA512|MD5|HMACSHA\d+|CryptoServiceProvider|Managed|DirectorySearcher|DirectoryEntry|PrincipalContext|X509Store|SmtpClient|MailMessage|Process|RunspacePool|Runspace)$/;
/** Methods of .NET that open a file or an archive. */
const OPENS =
  /\[(System\.)?IO\.(File\]::(Open\w*|Create\w*|AppendText)|Compression\.ZipFile\]::Open(Read)?)$/i;

/** Does an expression make something that can be disposed of? Undefined where nothing says so. */
function acquires(match: Match, rows: readonly Handle[]): Answer | undefined {
  const node = match.the(made);
  const text = node.text.replace(/\s+/g, " ");
  const own = rows.find((row) => text.toLowerCase().startsWith(calledIn(row).toLowerCase()));
  if (own) return yes("resource.acquired", `\`${calledIn(own)}\` acquires it`, node);
  const type =
    /^New-Object (?:-TypeName )?['"]?([\w.]+)['"]?/i.exec(text)?.[1] ??
    /^\[([\w.]+)\]::new\(/i.exec(text)?.[1];
  if (type !== undefined)
    return DISPOSABLE.test(type)
      ? yes("resource.closeable", `\`${type}\` can be disposed of`, node)
      : undefined;
  const called = /^([^()]+)\(/.exec(text)?.[1];
  return called !== undefined && OPENS.test(called)
    ? yes("resource.acquired", `\`${called}\` opens a file`, node)
    : undefined;
}

const RELEASES = [powershell`${name}.Dispose()`, powershell`${name}.Close()`];

/**
 * Outside of `try` an error that ends a statement goes on with the next one, and inside it does not. Nothing changes
 * where the code stands in a `try` already, or where nothing in between can fail.
 */
function endsTheSame(match: Match): Answer {
  if ([...match.node.ancestors()].some((above) => above.is("try_statement")))
    return yes("flow.throws", "the code stands in a `try` already");
  const statement = match.all(body).find((one) => canThrow(one).is !== "no");
  if (!statement) return yes("flow.throws", "nothing in between fails");
  return unknown(
    "resource.failed",
    `when \`${shortened(statement.text)}\` fails, the old script may go on with the next statement`,
    statement,
  );
}

const { rewrites, holds, ignores } = trialsIn("powershell");

/** The rule for the resources of .NET, and for those of a project. */
function releasedInFinallyWith(own: readonly Handle[] = []): Rule {
  const rows = rowsFor("powershell", [], own);
  return rule({
    id: "powershell/released-in-finally",
    kind: "idiom",
    title: "Dispose of the resource in a finally block",
    why: "What is closed by hand stays open, and its file locked, when something in between throws.",
    withHandles: releasedInFinallyWith,
    mentions: ["Dispose", "Close", "dispose", "close"],
    was: scoped({
      name,
      made,
      body,
      acquire: [powershell`${name} = ${made}`],
      release: RELEASES.map((code) => ({ code })),
      as: "straight",
    }),
    where: [(match) => acquires(match, rows) !== undefined],
    given: [
      condition("it can be disposed of", (match) => acquires(match, rows)!),
      somethingBetween(HOLES),
      keptInPlace(HOLES),
      releasedOnce(HOLES, (use) =>
        /^(Dispose|Close)$/i.test(use.parent?.child("member_name")?.text ?? use.parent?.parts[1]?.text ?? ""),
      ),
      condition("an early exit leaves something to release", (match) => {
        const asked = usesInside(match, HOLES).find(({ node }) => {
          const test = node.closest(["if_statement"])?.child("condition");
          return test?.holds(node) === true;
        });
        return asked
          ? no(
              "resource.failed",
              `\`${match.textOf(name)}\` is tested here, so it may not be there to release`,
              asked.node,
            )
          : yes("resource.failed", "nothing asks whether it is there");
      }),
      condition("making it cannot fail quietly", (match) =>
        /^New-Object/i.test(match.textOf(made))
          ? unknown(
              "resource.failed",
              "where `New-Object` fails and the script goes on, there is nothing to release",
              match.the(made),
            )
          : yes("resource.failed", "where it fails, the variable is not used", match.the(made)),
      ),
      nobodyNeedsIt(HOLES),
      condition("an error ends the same statements as before", endsTheSame),
    ],
    cautions: (match) =>
      endsTheSame(match).is === "yes"
        ? []
        : [
            caution(
              "resource.sooner",
              `when a statement in between fails, the old script went on with the next one, and the new one releases \`${match.textOf(name)}\` and leaves`,
            ),
          ],
    becomes: (match) => powershell`
      ${name} = ${made}
      try {
          ${body}
      }
      finally {
          ${match.resource.release.form.code}
      }
    `,
    trials: [
      rewrites(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            $line = $reader.ReadLine() # the first
            $reader.Dispose()
            $line
        }
        `,
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            try {
                $line = $reader.ReadLine() # the first
            }
            finally {
                $reader.Dispose()
            }
            $line
        }
        `,
        "likely",
      ),
      rewrites(
        `
        try {
            $reader = [System.IO.StreamReader]::new($path)
            $line = $reader.ReadLine()
            $reader.Dispose()
        }
        catch { $n = 1 }
        `,
        `
        try {
            $reader = [System.IO.StreamReader]::new($path)
            try {
                $line = $reader.ReadLine()
            }
            finally {
                $reader.Dispose()
            }
        }
        catch { $n = 1 }
        `,
      ),
      rewrites(
        `
        $out = New-Object System.IO.StreamWriter $path
        $out.WriteLine("wax")
        $out.Close()
        `,
        `
        $out = New-Object System.IO.StreamWriter $path
        try {
            $out.WriteLine("wax")
        }
        finally {
            $out.Close()
        }
        `,
        "likely",
      ),
      rewrites(
        `
        $in = [IO.File]::OpenText($path)
        $in.ReadLine()
        $in.Close()
        `,
        `
        $in = [IO.File]::OpenText($path)
        try {
            $in.ReadLine()
        }
        finally {
            $in.Close()
        }
        `,
        "likely",
      ),
      holds(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            $reader.ReadLine()
            if ($reader) { $reader.Dispose() }
        }
        `,
        "only the release would be left",
      ),
      holds(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            if (-not $reader) { return }
            $reader.ReadLine()
            $reader.Dispose()
        }
        `,
        "may not be there",
      ),
      rewrites(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            if ($path) { $reader.Dispose(); return }
            $reader.ReadLine()
            $reader.Dispose()
        }
        `,
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            try {
                if ($path) { return }
                $reader.ReadLine()
            }
            finally {
                $reader.Dispose()
            }
        }
        `,
        "likely",
      ),
      holds(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            if ($path) { $reader.Dispose() }
            $reader.ReadLine()
            $reader.Dispose()
        }
        `,
        "another place",
      ),
      holds(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            $reader = [System.IO.StreamReader]::new($path)
            $reader.Dispose()
        }
        `,
        "acquired anew",
      ),
      holds(
        `
        function Read-Hive($path) {
            $reader = [System.IO.StreamReader]::new($path)
            if ($path) { return $reader }
            $reader.ReadLine()
            $reader.Dispose()
        }
        `,
        "is returned",
      ),
      ignores("$list = New-Object System.Collections.ArrayList\n$list.Add(1)\n$list.Close()\n"),
      ignores("$reader = [IO.File]::OpenText($path)\n$reader.ReadLine()\n$other.Close()\n"),
    ],
  });
}

export const releasedInFinally = releasedInFinallyWith();
