/** The last step of a build: a sum over all that was built, by which results kept from another build are told. */
import { createHash } from "node:crypto";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

const dist = fileURLToPath(new URL("../dist/", import.meta.url));
const sum = createHash("sha256");
const files = readdirSync(dist, { recursive: true, encoding: "utf8" }).filter((name) => name.endsWith(".js"));
for (const file of files.sort()) sum.update(`${file}\n`).update(readFileSync(dist + file));
writeFileSync(`${dist}built.txt`, sum.digest("hex"));
