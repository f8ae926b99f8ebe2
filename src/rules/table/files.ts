import ignore from "ignore";
import { unknown } from "../../analysis/index.js";
import type { Narrowing } from "../around.js";
import { condition, type Condition } from "../condition.js";

/** Only in files with such names, written like lines of a .gitignore. */
export function inFiles(names: string): Narrowing {
  const those = ignore().add(names.split(",").map((name) => name.trim()));
  return ({ around: { path } }) => path !== "" && those.ignores(path);
}

/** The name of a file says whose it is as far as anything does, and nothing more is known. */
export function inThoseFiles(names: string): Condition {
  return condition(`the file is the product's (${names})`, ({ around: { path }, node }) =>
    unknown("name.not-resolved", `only its name says that \`${path}\` is a file of the product`, node),
  );
}
