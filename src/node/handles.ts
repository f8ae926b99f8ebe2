import { compile, Hole, SnippetError, type Snippet } from "../pattern/index.js";
import { CellError, writtenCode, type Handle } from "../rules/index.js";
import { languageOf, loadGrammars } from "../syntax/index.js";
import { Problem } from "./problem.js";

/** Throws a Problem that names the handle and what is wrong with its code, where a config has one that cannot be read. */
export async function checkHandles(handles: readonly Handle[], file: string): Promise<void> {
  await loadGrammars([...new Set(handles.map(({ language }) => languageOf(language)))]);
  for (const [i, { language, acquire, release, from }] of handles.entries()) {
    const check = (column: string, read: () => Snippet): void => {
      try {
        compile(read(), language);
      } catch (error) {
        if (!(error instanceof CellError || error instanceof SnippetError)) throw error;
        throw new Problem(`The config is not in order.\n  ${file}: handles.${i}.${column}: ${error.message}`);
      }
    };
    const holes = { handle: new Hole("handle", "name") };
    // Where imports give names, what is called says by its own where it comes from.
    if (from === undefined && languageOf(language).imports.canRename && /^[\w/]+\.[\w.]+\(/.test(acquire))
      throw new Problem(
        `The config is not in order.\n  ${file}: handles.${i}.acquire: \`${acquire}\` does not say what is imported. ` +
          `Write: ${suggested(acquire)}`,
      );
    check(
      "acquire",
      () => writtenCode(acquire, language, { holes, ...(from === undefined ? {} : { from }) }).snippet,
    );
    check("release", () => writtenCode(release.replace(/;$/, ""), language, { holes }).snippet);
  }
}

/** `acquire: "light(…)", from: "light from smoker"` for `smoker.light(…)`. */
function suggested(acquire: string): string {
  const path = acquire.replace(/\(.*$/s, "");
  const cut = path.lastIndexOf(".");
  const name = path.slice(cut + 1);
  return `acquire: "${acquire.slice(cut + 1)}", from: "${name} from ${path.slice(0, cut)}"`;
}
