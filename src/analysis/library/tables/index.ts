import type { LibraryCalls, LibraryClasses, LibraryLanguage, LibraryValues } from "../facts.js";
import * as cpp from "./cpp.js";
import * as csharp from "./csharp.js";
import * as java from "./java.js";
import * as javascript from "./javascript.js";
import * as php from "./php.js";
import * as powershell from "./powershell.js";
import * as python from "./python.js";
import * as ruby from "./ruby.js";

/** What ships, per language. */
export const TABLES: Readonly<
  Record<
    LibraryLanguage,
    {
      readonly CALLS: readonly LibraryCalls[];
      readonly CLASSES: readonly LibraryClasses[];
      readonly VALUES?: readonly LibraryValues[];
    }
  >
> = { cpp, csharp, java, javascript, php, powershell, python, ruby };
