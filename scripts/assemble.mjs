/** Assembles src/syntax/walk/walk.wat into walk-bytes.ts: `node scripts/assemble.mjs`. */
import { readFileSync, writeFileSync } from "node:fs";
import wabt from "wabt";

const room = new URL("../src/syntax/walk/", import.meta.url);
const { parseWat } = await wabt();
const module = parseWat("walk.wat", readFileSync(new URL("walk.wat", room), "utf8"));
const base64 = Buffer.from(module.toBinary({}).buffer).toString("base64");
const text = `/** walk.wat assembled, in base64; written by scripts/assemble.mjs. */
export const WALK_BYTES =
  "${base64}";
`;
writeFileSync(new URL("walk-bytes.ts", room), text);
