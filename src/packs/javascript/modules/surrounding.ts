import { escaped, folderOf, languageOfFile, normalized, unknown } from "../../../core.js";
import type { Answer, SourceFiles } from "../../../core.js";
import { type CodeFile, given } from "./code-file.js";
import { fileNamed, loadedBy } from "./loaded.js";
import type { Manifest } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";
import type { Reading } from "./reading.js";

const WITH_ENDING = /\.(c|m)?js$/;

/** Throws a NotAModule where what starts or loads a package cannot go on as it does; gives what may be otherwise. */
export function startedAs(manifest: Manifest, path: string, has: (path: string) => boolean): Answer[] {
  const { bin, exports, main, scripts = {}, name } = manifest;
  const programs = typeof bin === "string" ? [bin] : Object.values(bin ?? {});
  const unread = programs.filter((program) => !has(normalized(folderOf(path) + program) ?? ""));
  const bare = unread.find((program) => !WITH_ENDING.test(program));
  if (bare !== undefined)
    throw new NotAModule(undefined, `the program \`${bare}\` is no source of the project`);
  if (exports !== undefined && JSON.stringify(exports).includes('"require"'))
    throw new NotAModule(undefined, `${path} says what \`require\` loads`);
  const doubts = unread.map((program) =>
    unknown("name.other-uses", `the program \`${program}\` is no source of the project`),
  );
  const target = main === undefined ? undefined : normalized(folderOf(path) + main);
  if (target !== undefined && fileNamed(target, has) === undefined)
    doubts.push(
      unknown(
        "name.other-uses",
        `\`${main}\`, which ${path} names as the main file, is no source of the project`,
      ),
    );
  const script = Object.values(scripts).find((one) => /\s(-r|--require)\b|\brequire\(|\bjest\b/.test(one));
  if (script !== undefined)
    doubts.push(unknown("name.other-uses", `\`${script}\` may load files of the package with \`require\``));
  if (manifest.private !== true)
    doubts.push(
      unknown(
        "name.other-uses",
        `other packages load ${name === undefined ? "the package" : `\`${name}\``} with \`import\` from now on: a new major version`,
      ),
    );
  return doubts;
}

/** Packages that put something else in the place of what `require` loads. */
const REPLACING = ["proxyquire", "rewire", "mockery", "require-inject", "mock-require"];

/** Throws a NotAModule for a file that a tool loads in a way of its own; gives what a tool may do. */
export function refuseTools({ path, tree }: CodeFile): Answer[] {
  const name = path.slice(path.lastIndexOf("/") + 1);
  if (name.startsWith("."))
    throw new NotAModule(
      undefined,
      `${path} is loaded by a tool with \`require\`; call it \`${name.replace(/js$/, "cjs")}\` first`,
    );
  const [jest] = given("jest", tree);
  if (jest)
    throw new NotAModule(
      jest,
      "the test replaces modules while it runs, which is done in another way for ES modules",
    );
  return /^(gulpfile|gruntfile|.*\.(config|conf)|.*rc)\.js$/i.test(name)
    ? [unknown("name.other-uses", `a tool may load ${path} with \`require\``)]
    : [];
}

/** Throws a NotAModule for a file that puts something else in the place of what `require` loads. */
export function refuseReplaced({ loadings }: Reading): void {
  const replacing = loadings.find(({ name }) => REPLACING.includes(name));
  if (replacing) throw new NotAModule(replacing.call, "modules are replaced while the program runs");
}

/** Throws a NotAModule where code outside of a package loads one of its files. */
export function refuseUsersOutside(
  files: SourceFiles,
  inPackage: (path: string) => boolean,
  isOwn: (path: string) => boolean,
  { name }: Manifest,
): void {
  const byName =
    name === undefined ? undefined : new RegExp(`\\brequire\\(\\s*["'\`]${escaped(name)}["'\`/]`);
  for (const { path, text } of files.naming("require")) {
    if (inPackage(path) || !/^(javascript|typescript|tsx)$/.test(languageOfFile(path, text)?.id ?? ""))
      continue;
    if (byName?.test(text)) throw new NotAModule(undefined, `${path} loads the package with \`require\``);
    if (loadedBy(path, text, isOwn) !== undefined)
      throw new NotAModule(undefined, `${path}, outside of the package, loads a file of it with \`require\``);
  }
}
