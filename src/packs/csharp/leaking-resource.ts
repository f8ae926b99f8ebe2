import { csharp, holes, trialsIn, type SyntaxNode } from "../../core.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { isDisposable } from "./disposable.js";

const { type, name, made } = holes({
  type: "type",
  name: "name",
  made: { kind: "expression", node: ["object_creation_expression", "invocation_expression"] },
});
const { reports, ignores } = trialsIn("csharp");

/** What opens something outside of the program; what is wrapped around a stream belongs to who made the stream. */
const OPENS =
  /\bnew\s+(\w+\.)*(FileStream|Stream(Reader|Writer)|\w*Connection|TcpClient|UdpClient|Socket|HttpClient|Process|Mutex|Bitmap)\s*\(|\bFile\.(Open|Create|Append)\w*\(/;

/** `if (reader is IDisposable own) own.Dispose();` */
function releasedAsPattern(use: SyntaxNode): SyntaxNode | undefined {
  const test = use.closest(["is_pattern_expression"]);
  const name = test?.child("pattern")?.child("name")?.text;
  if (!test || name === undefined || !test.firstPart?.same(use)) return undefined;
  const branch = test.closest(["if_statement"])?.child("consequence");
  return [...(branch?.descendants() ?? [])].find(
    (node) => node.is("invocation_expression") && node.text.replace(/\s/g, "") === `${name}.Dispose()`,
  );
}

export const leakingResource = leakRule({
  id: "csharp/leaking-resource",
  was: [csharp`${type} ${name} = ${made};`],
  name,
  made,
  mentions:
    "Stream Reader Writer Connection Command Client Process Mutex Socket Graphics Bitmap Dispose".split(" "),
  acquires: (match) =>
    OPENS.test(match.textOf(made)) &&
    isDisposable(match, match.the(type), match.the(made), [], "Dispose").is === "yes",
  release: (use, match) =>
    callWritten(use, match.textOf(name), [
      "handle.Dispose()",
      "handle.Close()",
      "handle?.Dispose()",
      "handle?.Close()",
      "((IDisposable)handle).Dispose()",
      "(handle as IDisposable).Dispose()",
      "(handle as IDisposable)?.Dispose()",
    ]) ?? releasedAsPattern(use),
  byException: true,
  never: true,
  yieldsTo: ["csharp/scoped-resource"],
  trials: [
    reports(
      "class A { int F(string a) { var r = new StreamReader(a); if (a == null) return 1; int n = r.Read(); r.Dispose(); return n; } }\n",
      "where `return 1;` leaves",
    ),
    reports(
      "class A { int F(string a) { var r = new StreamReader(a); int n = r.Read(); r.Close(); return n; } }\n",
      "when `r.Read()` throws",
      "likely",
    ),
    reports(
      "class A { int F(string a) { var r = File.OpenText(a); return r.Read(); } }\n".replace(
        "var r",
        "StreamReader r",
      ),
      "never released",
    ),
    ignores(
      "class A { int F(string a) { var r = new StreamReader(a); try { return r.Read(); } finally { try { r.Dispose(); } catch (IOException e) { Log(e); } } } }\n",
    ),
    ignores("class A { StreamReader F(string a) { var r = new StreamReader(a); return r; } }\n"),
    ignores("class A { void F(string a) { var r = new StreamReader(a); this.r = r; } }\n"),
    ignores("class A { int F(string a) { using (var r = new StreamReader(a)) { return r.Read(); } } }\n"),
    ignores("class A { int F(string a) { using var r = new StreamReader(a); return r.Read(); } }\n"),
    ignores("class A { int F(string a) { var r = new StringReader(a); return r.Read(); } }\n"),
    ignores(
      "class A { int F(string a) { var r = new StreamReader(a); try { return r.Read(); } finally { r.Dispose(); } } }\n",
    ),
    ignores(
      "class A { int F(string a) { var r = new StreamReader(a); try { return r.Read(); } finally { if (r != null) r.Dispose(); } } }\n",
    ),
    ignores(
      "class A { int F(string a) { var r = new StreamReader(a); try { return r.Read(); } finally { if (r is IDisposable own) own.Dispose(); } } }\n",
    ),
    ignores(
      "class A { int F(string a) { var r = new StreamReader(a); try { return r.Read(); } finally { ((IDisposable)r).Dispose(); } } }\n",
    ),
    ignores(
      "class A { int F(string a) { var r = new StreamReader(a); try { return r.Read(); } finally { if (!(r is null)) { r.Close(); } } } }\n",
    ),
  ],
});
