import { readdirSync, readFileSync } from "node:fs";
import { builtinModules } from "node:module";
import { dirname, join, relative, resolve } from "node:path";

/** The rooms from the bottom up: each may import itself and those before it. */
const ROOMS = [
  "syntax",
  "pattern",
  "rewrite",
  "embed",
  "analysis",
  "readings",
  "rules",
  "engine",
  "plan",
  "draft",
  "report",
  "packs",
  "node",
  "prove",
  "workspace",
  "fleet",
  "serve",
  "lsp",
  "cli",
];
const WITH_NODE = ["node", "prove", "workspace", "fleet", "serve", "lsp", "cli"];
const src = resolve("src");

const files = readdirSync(src, { recursive: true, encoding: "utf8" })
  .filter((name) => name.endsWith(".ts"))
  .map((name) => join(src, name));

function importsOf(file: string): string[] {
  const text = readFileSync(file, "utf8");
  return [...text.matchAll(/^(?:import|export|\} from)\b[^;`]*?"([^"]+)";/gm)].map((match) => match[1]!);
}

const roomOf = (path: string): string => relative(src, path).split("/")[0]!;

test("every room is known", () => {
  const rooms = new Set(files.map(roomOf).filter((room) => !room.endsWith(".ts")));
  expect([...rooms].sort()).toEqual([...ROOMS].sort());
});

test("a room imports only from rooms before it; packs import only what a user's rules could", () => {
  const wrong: string[] = [];
  for (const file of files.filter((path) => !roomOf(path).endsWith(".ts"))) {
    for (const name of importsOf(file).filter((specifier) => specifier.startsWith("."))) {
      const target = relative(src, resolve(dirname(file), name));
      const [from, to] = [ROOMS.indexOf(roomOf(file)), ROOMS.indexOf(target.split("/")[0]!)];
      const isCore = target === "core.js" || target === "index.js";
      const allowed = isCore ? from >= ROOMS.indexOf("packs") : to >= 0 && to <= from;
      const packReachesIn = roomOf(file) === "packs" && !isCore && to !== from;
      if (!allowed || packReachesIn) wrong.push(`${relative(src, file)} imports ${name}`);
    }
  }
  expect(wrong).toEqual([]);
});

test("only node/, prove/, workspace/, serve/ and cli/ import Node modules", () => {
  const isNode = (name: string): boolean => name.startsWith("node:") || builtinModules.includes(name);
  const wrong = files
    .filter((file) => !WITH_NODE.includes(roomOf(file)))
    .filter((file) => importsOf(file).some(isNode))
    .map((file) => relative(src, file));
  expect(wrong).toEqual([]);
});
