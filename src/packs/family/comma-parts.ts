/**
 * The parts between the commas of a list as text, trimmed, up to the bracket that ends the list if there is one; commas in
 * brackets belong to a part. For code of other files, of which only the text is kept.
 */
export function commaParts(list: string): string[] {
  const parts = [""];
  let depth = 0;
  for (const letter of list) {
    if (letter === ")" && depth === 0) break;
    if ("<([".includes(letter)) depth++;
    if (">)]".includes(letter)) depth--;
    if (letter === "," && depth === 0) parts.push("");
    else parts[parts.length - 1] += letter;
  }
  return parts.map((one) => one.trim()).filter((one) => one !== "");
}
