import ignore from "ignore";
import { yes } from "../../analysis/index.js";
import type { Narrowing } from "../around.js";
import { condition, type Condition } from "../condition.js";

/** Only in files with such names, written like lines of a .gitignore. */
export function inFiles(names: string): Narrowing {
  const those = ignore().add(names.split(",").map((name) => name.trim()));
  return ({ around: { path } }) => path !== "" && those.ignores(path);
}

/** The name of the file says what the code in it is. */
export function inThoseFiles(names: string): Condition {
  return condition(`the file is one of ${names}`, ({ around: { path } }) =>
    yes("name.not-resolved", `\`${path}\` is one of the product's own files`),
  );
}
