import { condition, holes, need, no, ofKind, rule, text, trialsIn, unknown, yes } from "../../../core.js";
import { callOf, typeOf } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { caughtBy, handlersAround, namesException } from "../handlers.js";
import { isLibraryName } from "../types.js";

const { name } = holes({ name: { kind: "expression", node: "string_literal" } });
const StandardCharsets = need("java.nio.charset", "StandardCharsets");

const CONSTANTS: Readonly<Record<string, string>> = {
  "UTF-8": "UTF_8",
  UTF8: "UTF_8",
  "US-ASCII": "US_ASCII",
  ASCII: "US_ASCII",
  "ISO-8859-1": "ISO_8859_1",
  "UTF-16": "UTF_16",
  "UTF-16BE": "UTF_16BE",
  "UTF-16LE": "UTF_16LE",
};

const constantOf = (node: SyntaxNode): string | undefined => CONSTANTS[node.text.slice(1, -1).toUpperCase()];

/** Constructors that take a charset in the place of its name, by the number of their arguments. */
const MADE: Readonly<Record<string, number>> = { InputStreamReader: 2, OutputStreamWriter: 2 };

interface Place {
  /** The expression that takes the name. */
  readonly taker: SyntaxNode;
  readonly is: "looked-up" | "bytes" | "text" | "made";
}

/** Where the name of a charset stands, if a charset may stand there as well. */
function placeOf(node: SyntaxNode): Place | undefined {
  const list = node.parent;
  const taker = list?.is("argument_list") ? list.parent : undefined;
  if (!taker || !list!.lastPart?.same(node)) return undefined;
  const count = list!.parts.length;
  if (taker.is("object_creation_expression")) {
    const type = taker.child("type")!.text;
    if (type === "String" && (count === 2 || count === 4)) return { taker, is: "text" };
    return MADE[type] === count ? { taker, is: "made" } : undefined;
  }
  const call = callOf(taker);
  if (!call || count !== 1) return undefined;
  if (call.method === "forName" && call.receiver?.text === "Charset") return { taker, is: "looked-up" };
  return call.method === "getBytes" && call.receiver ? { taker, is: "bytes" } : undefined;
}

const MODULES: Readonly<Record<string, string>> = { String: "java.lang", Charset: "java.nio.charset" };

function isTheLibrarys(match: Match): Answer {
  const { taker, is } = placeOf(match.the(name))!;
  if (is !== "bytes") {
    const type = is === "looked-up" ? "Charset" : taker.child("type")!.text;
    return isLibraryName(type, MODULES[type] ?? "java.io", match);
  }
  const receiver = callOf(taker)!.receiver!;
  const type = typeOf(receiver)?.name;
  if (type === undefined) return unknown("type.not-known", `\`${receiver.text}\` could be no text`, receiver);
  return type === "String"
    ? isLibraryName("String", "java.lang", match)
    : no("type.is", `\`${receiver.text}\` is a \`${type}\``, receiver);
}

/** A handler for what nothing throws any more is no correct program. */
function isNotWaitedFor(match: Match): Answer {
  const code = "flow.throws";
  const { taker, is } = placeOf(match.the(name))!;
  if (is === "looked-up") return yes(code, "no checked exception is thrown, as before");
  for (const clause of handlersAround(taker)) {
    if (namesException(caughtBy(clause), ["UnsupportedEncodingException"]))
      return no(
        code,
        "`UnsupportedEncodingException` is caught here, which nothing may throw any more",
        clause,
      );
    if (namesException(caughtBy(clause), ["IOException"]))
      return unknown(code, "`IOException` is caught here, which nothing else may throw", clause);
  }
  return yes(code, "nothing here waits for the exception that names throw");
}

const { rewrites, ignores, holds } = trialsIn("java", "7");
const head = "import java.io.*;\nimport java.nio.charset.Charset;\n";
const added =
  "import java.io.*;\nimport java.nio.charset.Charset;\nimport java.nio.charset.StandardCharsets;\n";
const inMethod = (code: string, imports = head): string =>
  `${imports}class A {\n    void f(String s, byte[] b, InputStream in) throws IOException {\n        ${code}\n    }\n}\n`;

export const standardCharset = rule({
  id: "java/standard-charset",
  kind: "idiom",
  title: "Name a charset by its constant",
  why: "A name is looked up each time, a misspelt one is noticed when it runs, and an exception must be handled that never comes.",
  target: "7",
  was: ofKind(name, {
    when: (node) => constantOf(node) !== undefined && placeOf(node) !== undefined,
    inPlaceOf: (node) => {
      const { taker, is } = placeOf(node)!;
      return is === "looked-up" ? taker : node;
    },
  }),
  mentions: ["getBytes", "forName", "String", "InputStreamReader", "OutputStreamWriter"],
  given: [
    condition("it is a method of the library", isTheLibrarys, { unknownIs: "possible" }),
    condition("nobody waits for an exception", isNotWaitedFor),
  ],
  becomes: (match) => [text(`${match.nameOf(StandardCharsets)}.${constantOf(match.the(name))!}`)],
  trials: [
    rewrites(
      inMethod('b = s.getBytes("UTF-8");'),
      inMethod("b = s.getBytes(StandardCharsets.UTF_8);", added),
    ),
    rewrites(
      inMethod('g(new String(b, "utf8"), new String(b, 0, 3, "ISO-8859-1"));'),
      inMethod(
        "g(new String(b, StandardCharsets.UTF_8), new String(b, 0, 3, StandardCharsets.ISO_8859_1));",
        added,
      ),
    ),
    rewrites(
      inMethod('Reader r = new InputStreamReader(in, "US-ASCII");'),
      inMethod("Reader r = new InputStreamReader(in, StandardCharsets.US_ASCII);", added),
    ),
    rewrites(
      inMethod('g(unknown().getBytes("UTF-8"));'),
      inMethod("g(unknown().getBytes(StandardCharsets.UTF_8));", added),
      "possible",
    ),
    rewrites(
      inMethod('try { g(new String(b, "UTF-8")); h(); } catch (IOException e) { g(e); }'),
      inMethod(
        "try { g(new String(b, StandardCharsets.UTF_8)); h(); } catch (IOException e) { g(e); }",
        added,
      ),
      "likely",
    ),
    holds(
      inMethod(
        'try { g(s.getBytes("UTF-8")); } catch (UnsupportedEncodingException e) { throw new AssertionError(e); }',
      ),
      "is caught here",
    ),
    holds(
      inMethod('Reader r = new InputStreamReader(in, "UTF-8");', "import hive.InputStreamReader;\n"),
      "is imported from",
    ),
    rewrites(
      inMethod('Charset c = Charset.forName("utf-8");'),
      inMethod("Charset c = StandardCharsets.UTF_8;", added),
    ),
    ignores(inMethod('g(s.getBytes("windows-1252"));')),
    ignores(inMethod('g(new String("UTF-8"));')),
    ignores(inMethod('g(URLDecoder.decode(s, "UTF-8"));')),
    ignores(inMethod("g(new InputStreamReader(in, name));")),
  ],
});
