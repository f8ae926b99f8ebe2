import { modify } from "jsonc-parser";
import { z } from "zod";
import type { Edit } from "../../../core.js";

const text = z.string().optional().catch(undefined);
const texts = z.record(z.string(), z.string());
const manifest = z.object({
  name: text,
  type: text,
  private: z.boolean().optional().catch(undefined),
  main: text,
  bin: z.union([z.string(), texts]).optional().catch(undefined),
  exports: z.unknown().optional(),
  engines: texts.optional().catch(undefined),
  scripts: texts.optional().catch(undefined),
});

/** What a `package.json` says that counts here. */
export type Manifest = z.output<typeof manifest>;

/** Undefined for what is no manifest. */
export function manifestIn(text: string | undefined): Manifest | undefined {
  try {
    return text === undefined ? undefined : manifest.safeParse(JSON.parse(text)).data;
  } catch {
    return undefined;
  }
}

/** The edits with which a manifest says that its files are ES modules: behind its name and version, in the layout of its lines. */
export function withModules(text: string): Edit[] {
  const [, indent] = /\n([ \t]+)"/.exec(text) ?? [];
  // What stands on one line stays there.
  const formattingOptions = indent !== undefined && {
    insertSpaces: !indent.startsWith("\t"),
    tabSize: indent.length,
    eol: text.includes("\r\n") ? "\r\n" : "\n",
  };
  const getInsertionIndex = (keys: string[]): number =>
    Math.max(keys.indexOf("name"), keys.indexOf("version")) + 1;
  return modify(text, ["type"], "module", {
    ...(formattingOptions ? { formattingOptions } : {}),
    getInsertionIndex,
  }).map(({ offset, length, content }) => ({ start: offset, end: offset + length, text: content }));
}
