import { cpp } from "@codemirror/lang-cpp";
import { java } from "@codemirror/lang-java";
import { javascript } from "@codemirror/lang-javascript";
import { php } from "@codemirror/lang-php";
import { python } from "@codemirror/lang-python";
import { StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { csharp } from "@codemirror/legacy-modes/mode/clike";
import { powerShell } from "@codemirror/legacy-modes/mode/powershell";
import { ruby } from "@codemirror/legacy-modes/mode/ruby";
import type { Extension } from "@codemirror/state";
import { classHighlighter } from "@lezer/highlight";

/** How the code of a file is coloured, by its ending; code inside other files is not. */
const LANGUAGES: readonly [RegExp, () => Extension][] = [
  [/\.[cm]?jsx?$/, () => javascript({ jsx: true })],
  [/\.[cm]?ts$/, () => javascript({ typescript: true })],
  [/\.tsx$/, () => javascript({ jsx: true, typescript: true })],
  [/\.pyi?$/, () => python()],
  [/\.java$/, () => java()],
  [/\.(c|cc|cpp|cxx|h|hh|hpp|hxx|ipp)$/, () => cpp()],
  [/\.php$/, () => php()],
  [/\.cs$/, () => StreamLanguage.define(csharp)],
  [/\.(rb|rake|gemspec)$/, () => StreamLanguage.define(ruby)],
  [/\.ps[md]?1$/, () => StreamLanguage.define(powerShell)],
];

/** Colours for the code of a file. PHP is told that it is inside of its tags where it does not open them. */
export function colours(path: string, code: string): Extension[] {
  const highlighting = syntaxHighlighting(classHighlighter);
  if (path.endsWith(".php")) return [php({ plain: !code.includes("<?") }), highlighting];
  const known = LANGUAGES.find(([ending]) => ending.test(path));
  return known ? [known[1](), highlighting] : [highlighting];
}
