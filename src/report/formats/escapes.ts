/** A text without half characters. */
const whole = (text: string): string => text.replace(/\p{Surrogate}/gu, "\ufffd");

/** Text that any reader can take: no half characters, and no control characters but line ends and tabs. */
export function plainText(text: string): string {
  return whole(text).replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffe\uffff]/g, "\ufffd");
}

/** A sentence in parts, of which each second one is code: it stands between backquotes. */
export function partsOfSentence(sentence: string): string[] {
  return sentence.split(/`([^`]+)`/);
}

/** A path as an address relative to the root. */
export function pathAddress(path: string): string {
  return whole(path).split("/").map(encodeURIComponent).join("/");
}
