import { holes, isOfLibrary, java, need, no, shortened, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, Hole, Match, SyntaxNode } from "../../../core.js";
import { isLibraryName, typeArguments } from "../types.js";
import { calls, codeOf, constant, type Row } from "./row.js";
import { isCollection } from "./rows-made.js";

const { x, y, bytes, from, items, more } = holes({
  x: "expression",
  y: "expression",
  bytes: "expression",
  from: "expression",
  items: "expression",
  more: "arguments",
});
/** A separator that is written here as a text. */
const { between } = holes({ between: { kind: "expression", node: ["string_literal"] } });

const Objects = need("java.util", "Objects");
const Text = need("java.lang", "String");
const Base64 = need("java.util", "Base64");
const HexFormat = need("java.util", "HexFormat");
const ConcurrentHashMap = need("java.util.concurrent", "ConcurrentHashMap");
const StandardCharsets = need("java.nio.charset", "StandardCharsets");

const isText =
  (...wanted: readonly Hole[]) =>
  (match: Match): Answer => {
    for (const hole of wanted) {
      const node = match.the(hole);
      if (isWrittenText(node)) continue;
      const type = typeOf(node);
      const shown = shortened(node.text);
      if (!type) return unknown("type.is", `\`${shown}\` could be something else than a text`, node);
      if (type.name !== "String")
        return no("type.is", `\`${shown}\` is a \`${type.name}\`, and no text`, node);
      const own = isLibraryName("String", "java.lang", node);
      if (own.is !== "yes") return own;
    }
    return yes("type.is", "texts are given");
  };

/** A text that is written here, or put together of one. */
function isWrittenText(node: SyntaxNode): boolean {
  if (node.is("parenthesized_expression")) return isWrittenText(node.firstPart!);
  if (node.is("binary_expression"))
    return node.child("operator")?.text === "+" && node.parts.some((part) => isWrittenText(part));
  return node.is("string_literal");
}

const STREAMS = [
  "InputStream",
  "FileInputStream",
  "BufferedInputStream",
  "ByteArrayInputStream",
  "DataInputStream",
  "ObjectInputStream",
];

function isStream(match: Match): Answer {
  const node = match.the(from);
  return isOfLibrary(node, {
    names: STREAMS,
    module: /^java\.io$/,
    methods: ["readAllBytes"],
    what: "InputStream",
  });
}

function areTexts(match: Match): Answer {
  const node = match.the(items);
  const shown = shortened(node.text);
  const collection = isCollection(items)(match);
  if (collection.is !== "yes") return collection;
  const [of] = typeArguments(node);
  if (of === undefined) return unknown("type.is", `the items of \`${shown}\` could be no texts`, node);
  if (of !== "String") return no("type.is", `the items of \`${shown}\` are \`${of}\`, and no texts`, node);
  return yes("type.is", `the items of \`${shown}\` are texts`, node);
}

const areThere = (match: Match): Answer => {
  const node = match.the(items);
  const says = `an item of \`${shortened(node.text)}\` could be null, for which the library throws`;
  return unknown("value.null", says, node);
};

const TOLERATED = "which the library tolerates";

const isThere =
  (hole: Hole, otherwise: string) =>
  (match: Match): Answer => {
    const node = match.the(hole);
    const says = `\`${shortened(node.text)}\` could be null, ${otherwise}`;
    return node.is("object_creation_expression") || isWrittenText(node)
      ? yes("value.null", `\`${shortened(node.text)}\` is never null`, node)
      : unknown("value.null", says, node);
  };

const BASE = "com.google.common.base";
const PRIMITIVES = "com.google.common.primitives";
const LANG = ["org.apache.commons.lang3", "org.apache.commons.lang"];

/** Of the classes for one type of number each: that of the library, and that of the language. */
const BOXES = ["Ints Integer", "Longs Long", "Doubles Double", "Floats Float", "Booleans Boolean"].map(
  (pair) => pair.split(" ") as [string, string],
);

const CHARSETS = ["UTF_8", "US_ASCII", "ISO_8859_1", "UTF_16", "UTF_16BE", "UTF_16LE"];

/** Functions of libraries that the standard library has itself. */
export const CALLED: readonly Row[] = [
  calls(`${BASE}.Preconditions.checkNotNull`, [x], java.expression`${Objects}.requireNonNull(${x})`),
  calls(
    `${BASE}.Preconditions.checkNotNull`,
    [x, y],
    java.expression`${Objects}.requireNonNull(${x}, ${y})`,
    { takes: isText(y), doesSame: isThere(y, "for which the message of the library says `null`") },
  ),
  calls(`${BASE}.Objects.equal`, [x, y], java.expression`${Objects}.equals(${x}, ${y})`),
  calls(`${BASE}.Objects.hashCode`, [more], java.expression`${Objects}.hash(${more})`),
  ...["Objects", "MoreObjects"].map((owner) =>
    calls(
      `${BASE}.${owner}.firstNonNull`,
      [x, y],
      java.expression`${Objects}.requireNonNullElse(${x}, ${y})`,
    ),
  ),
  calls(`${BASE}.Strings.repeat`, [x, y], java.expression`${x}.repeat(${y})`),
  calls(`${BASE}.Strings.nullToEmpty`, [x], java.expression`${Objects}.toString(${x}, "")`),
  calls(
    "com.google.common.collect.Sets.newConcurrentHashSet",
    [],
    java.expression`${ConcurrentHashMap}.newKeySet()`,
  ),
  {
    was: [codeOf(need(BASE, "Joiner"), ".on(", between, ").join(", items, ")")],
    becomes: java.expression`${Text}.join(${between}, ${items})`,
    takes: areTexts,
    doesSame: areThere,
  },
  calls("com.google.common.collect.Iterables.isEmpty", [items], java.expression`${items}.isEmpty()`, {
    takes: isCollection(items),
  }),
  calls("com.google.common.collect.Iterables.size", [items], java.expression`${items}.size()`, {
    takes: isCollection(items),
  }),
  ...BOXES.map(([owner, own]) =>
    calls(`${PRIMITIVES}.${owner}.compare`, [x, y], codeOf(need("java.lang", own), ".compare(", [x, y], ")")),
  ),
  ...BOXES.map(([owner, own]) =>
    calls(`${PRIMITIVES}.${owner}.hashCode`, [x], codeOf(need("java.lang", own), ".hashCode(", x, ")")),
  ),
  calls("com.google.common.io.ByteStreams.toByteArray", [from], java.expression`${from}.readAllBytes()`),
  {
    was: [codeOf(need("com.google.common.io", "BaseEncoding"), ".base64().encode(", bytes, ")")],
    becomes: java.expression`${Base64}.getEncoder().encodeToString(${bytes})`,
  },
  {
    was: [codeOf(need("com.google.common.io", "BaseEncoding"), ".base64Url().encode(", bytes, ")")],
    becomes: java.expression`${Base64}.getUrlEncoder().encodeToString(${bytes})`,
  },
  {
    was: [codeOf(need("com.google.common.io", "BaseEncoding"), ".base16().lowerCase().encode(", bytes, ")")],
    becomes: java.expression`${HexFormat}.of().formatHex(${bytes})`,
  },
  {
    was: [codeOf(need("org.apache.commons.codec.binary", "Base64"), ".encodeBase64String(", bytes, ")")],
    becomes: java.expression`${Base64}.getEncoder().encodeToString(${bytes})`,
    doesSame: isThere(bytes, TOLERATED),
  },
  ...LANG.flatMap((module) => [
    calls(`${module}.ObjectUtils.equals`, [x, y], java.expression`${Objects}.equals(${x}, ${y})`),
    calls(`${module}.ObjectUtils.hashCode`, [x], java.expression`${Objects}.hashCode(${x})`),
    calls(`${module}.ObjectUtils.toString`, [x], java.expression`${Objects}.toString(${x}, "")`),
    calls(`${module}.ObjectUtils.toString`, [x, y], java.expression`${Objects}.toString(${x}, ${y})`, {
      takes: isText(y),
    }),
    calls(
      `${module}.ObjectUtils.defaultIfNull`,
      [x, y],
      java.expression`${Objects}.requireNonNullElse(${x}, ${y})`,
      { doesSame: isThere(y, TOLERATED) },
    ),
    calls(`${module}.StringUtils.defaultString`, [x], java.expression`${Objects}.toString(${x}, "")`),
    calls(`${module}.StringUtils.defaultString`, [x, y], java.expression`${Objects}.toString(${x}, ${y})`),
  ]),
  calls(
    "org.apache.commons.lang3.StringUtils.equals",
    [x, y],
    java.expression`${Objects}.equals(${x}, ${y})`,
    { takes: isText(x, y) },
  ),
  calls("org.apache.commons.lang.StringUtils.equals", [x, y], java.expression`${Objects}.equals(${x}, ${y})`),
  calls("org.apache.commons.io.IOUtils.toByteArray", [from], java.expression`${from}.readAllBytes()`, {
    takes: isStream,
  }),
  ...[BASE, "org.apache.commons.io"].flatMap((module) =>
    CHARSETS.map((name) => constant(`${module}.Charsets.${name}`, codeOf(StandardCharsets, `.${name}`))),
  ),
];
