import { cpp } from "@codemirror/lang-cpp";
import { java } from "@codemirror/lang-java";
import { javascript } from "@codemirror/lang-javascript";
import { php } from "@codemirror/lang-php";
import { python } from "@codemirror/lang-python";
import { Language, LanguageSupport, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { csharp } from "@codemirror/legacy-modes/mode/clike";
import { powerShell } from "@codemirror/legacy-modes/mode/powershell";
import { ruby } from "@codemirror/legacy-modes/mode/ruby";
import type { Extension } from "@codemirror/state";
import { classHighlighter, highlightCode } from "@lezer/highlight";

/** How the code of a file is coloured, by its ending; code inside other files is not. */
const LANGUAGES: readonly [RegExp, () => LanguageSupport | Language][] = [
  [/\.[cm]?jsx?$/, () => javascript({ jsx: true })],
  [/\.[cm]?ts$/, () => javascript({ typescript: true })],
  [/\.tsx$/, () => javascript({ jsx: true, typescript: true })],
  [/\.pyi?$/, () => python()],
  [/\.java$/, () => java()],
  [/\.(c|cc|cpp|cxx|h|hh|hpp|hxx|ipp)$/, () => cpp()],
  [/\.cs$/, () => StreamLanguage.define(csharp)],
  [/\.(rb|rake|gemspec)$/, () => StreamLanguage.define(ruby)],
  [/\.ps[md]?1$/, () => StreamLanguage.define(powerShell)],
];

/** PHP is told that it is inside of its tags where it does not open them. */
function languageOf(path: string, code: string): LanguageSupport | Language | undefined {
  if (path.endsWith(".php")) return php({ plain: !code.includes("<?") });
  return LANGUAGES.find(([ending]) => ending.test(path))?.[1]();
}

/** Colours for the code of a file. */
export function colours(path: string, code: string): Extension[] {
  const highlighting = syntaxHighlighting(classHighlighter);
  const language = languageOf(path, code);
  return language ? [language, highlighting] : [highlighting];
}

/** Code in pieces, each with the classes of its colour, for where it is only shown. */
export function coloured(path: string, code: string): { readonly text: string; readonly classes: string }[] {
  const language = languageOf(path, code);
  if (!language) return [{ text: code, classes: "" }];
  const { parser } = language instanceof LanguageSupport ? language.language : language;
  const pieces: { text: string; classes: string }[] = [];
  highlightCode(
    code,
    parser.parse(code),
    classHighlighter,
    (text, classes) => pieces.push({ text, classes }),
    () => pieces.push({ text: "\n", classes: "" }),
  );
  return pieces;
}
