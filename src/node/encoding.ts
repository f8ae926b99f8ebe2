import { isUtf8 } from "node:buffer";
import type iconv from "iconv-lite";
import { whenNeeded } from "./when-needed.js";

const conversions = whenNeeded<typeof iconv>("iconv-lite");

/** How the bytes of a source stand for its text. */
export type Encoding = string;

const UTF8 = "utf-8";
/** Every byte is the character of the same number, so that what is not understood comes back as it was. */
const BYTES = "latin1";
/** What Python and Ruby look for in the first two lines. */
const CODING_LINE = /^[ \t\f]*#.*?coding[:=][ \t]*([-\w.]+)/;

/**
 * The encoding of a source: by its byte-order mark, else by a coding line, else UTF-8 where it is valid, else Latin-1,
 * which loses no byte. Undefined where a mark or a coding line says what it is and the bytes are not that, and where the
 * bytes could be pairs that stand for one character each.
 */
export function encodingOf(bytes: Uint8Array): Encoding | undefined {
  const mark = bytes[0]! * 256 + bytes[1]!;
  if (mark === 0xfffe) return comesBack(bytes, "utf-16le");
  if (mark === 0xfeff) return comesBack(bytes, "utf-16be");
  const declared = codingLine(bytes);
  if (declared !== undefined && !/^utf-?8/i.test(declared) && !isAscii(bytes))
    return conversions().encodingExists(declared) ? comesBack(bytes, declared) : undefined;
  if (isUtf8(bytes)) return UTF8;
  return mayBePairs(bytes) ? undefined : BYTES;
}

/** Why the encoding of a source is not known, and what to do; for bytes of which `encodingOf` tells none. */
export function unknownEncoding(bytes: Uint8Array): string {
  const declared = codingLine(bytes);
  if (declared !== undefined)
    return `it is not in ${declared}, which its coding line names; save it as UTF-8`;
  return mayBePairs(bytes)
    ? "it is not valid UTF-8, and may have two bytes for a character; save it as UTF-8"
    : "it is not in UTF-16, which its first bytes name; save it as UTF-8";
}

/** The text of a source, its byte-order mark kept. */
export function decode(bytes: Uint8Array): string {
  const encoding = encodingOf(bytes) ?? BYTES;
  if (encoding === UTF8) return new TextDecoder(UTF8, { ignoreBOM: true }).decode(bytes);
  return conversions().decode(Buffer.from(bytes), encoding, { stripBOM: false });
}

/** The bytes of a text; undefined where the encoding has no bytes for a character of it. */
export function encode(text: string, encoding: Encoding): Uint8Array | undefined {
  if (encoding === UTF8) return Buffer.from(text, "utf8");
  const bytes = conversions().encode(text, encoding, { addBOM: false });
  return conversions().decode(bytes, encoding, { stripBOM: false }) === text ? bytes : undefined;
}

function comesBack(bytes: Uint8Array, encoding: Encoding): Encoding | undefined {
  const back = encode(conversions().decode(Buffer.from(bytes), encoding, { stripBOM: false }), encoding);
  return back && Buffer.compare(back, bytes) === 0 ? encoding : undefined;
}

function codingLine(bytes: Uint8Array): string | undefined {
  const lines = Buffer.from(bytes.subarray(0, 400)).toString("latin1").split(/\r?\n/, 2);
  return lines.map((line) => CODING_LINE.exec(line)?.[1]).find((name) => name !== undefined);
}

/**
 * Could a backslash be the second byte of a character, as in the encodings of Japanese and Chinese, where nothing says
 * so? In Latin-1 such bytes before a backslash are signs that hardly ever stand there.
 */
function mayBePairs(bytes: Uint8Array): boolean {
  const hasKana = bytes.includes(0x82) || bytes.includes(0x83);
  const last = hasKana ? 0xfc : 0xc6;
  return bytes.some((byte, i) => byte === 0x5c && bytes[i - 1]! > 0x80 && bytes[i - 1]! <= last);
}

function isAscii(bytes: Uint8Array): boolean {
  return bytes.every((byte) => byte < 0x80);
}
