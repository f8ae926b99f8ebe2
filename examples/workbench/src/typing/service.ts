import ts from "typescript";
import { declarations } from "./files";

export const RULE_FILE = "/rule.ts";

let text = "";
let version = 0;

const folders = new Set<string>(["/"]);
for (const path of declarations.keys())
  for (let at = path.lastIndexOf("/"); at > 0; at = path.lastIndexOf("/", at - 1))
    folders.add(path.slice(0, at));

const read = (path: string): string | undefined => (path === RULE_FILE ? text : declarations.get(path));

const host: ts.LanguageServiceHost = {
  getCompilationSettings: () => ({
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    lib: ["lib.es2022.d.ts"],
    types: [],
    strict: true,
    skipLibCheck: true,
  }),
  getScriptFileNames: () => [RULE_FILE],
  getScriptVersion: (path) => (path === RULE_FILE ? String(version) : "0"),
  getScriptSnapshot(path) {
    const found = read(path);
    return found === undefined ? undefined : ts.ScriptSnapshot.fromString(found);
  },
  getCurrentDirectory: () => "/",
  getDefaultLibFileName: () => "/lib/lib.es2022.d.ts",
  fileExists: (path) => read(path) !== undefined,
  readFile: read,
  directoryExists: (path) => folders.has(path),
  getDirectories: (path) =>
    [...folders]
      .filter((one) => one.startsWith(`${path === "/" ? "" : path}/`))
      .map((one) => one.slice(path === "/" ? 1 : path.length + 1))
      .filter((one) => one !== "" && !one.includes("/")),
};

/** The compiler's language service over the one rule file. */
export const service = ts.createLanguageService(host);

/** Sets the text that the service speaks of. */
export function setText(now: string): void {
  if (now === text) return;
  text = now;
  version++;
}
