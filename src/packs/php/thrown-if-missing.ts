import { holes, orThrows, php, rule, trialsIn } from "../../core.js";
import {
  asksAlone,
  functionsOfPhp,
  itemsMayBeNull,
  keepsNull,
  passesValue,
  readOnce,
  whatIsReadIsThere,
} from "./presence.js";

const { value, error } = holes({ value: "expression", error: "expression" });
const { rewrites, ignores, holds } = trialsIn("php", "8.0");
const within = (code: string): string =>
  `<?php\nfunction f(array $hives, ?Hive $hive, $n)\n{\n    ${code}\n}\n`;

export const thrownIfMissing = rule({
  id: "php/thrown-if-missing",
  kind: "idiom",
  title: "Use ?? throw instead of a null check that throws",
  why: "The test and the value that it protects belong together and should not drift apart.",
  target: "8.0",
  was: orThrows(value, error),
  given: [
    readOnce(),
    asksAlone(),
    whatIsReadIsThere("??"),
    functionsOfPhp(),
    itemsMayBeNull(),
    passesValue(),
  ],
  cautions: keepsNull("throws"),
  becomes: php.expression`${value} ?? throw ${error}`,
  trials: [
    rewrites(
      within("if ($hive === null) {\n        throw new NoHive($n);\n    }\n\n    return $hive;"),
      within("return $hive ?? throw new NoHive($n);"),
    ),
    rewrites(
      within("if (!is_null($hive)) { return $hive; } throw new NoHive();"),
      within("return $hive ?? throw new NoHive();"),
    ),
    rewrites(
      within("if (!isset($hives[1])) throw new NoHive();\n    $first = $hives[1];\n    return $first;"),
      within("$first = $hives[1] ?? throw new NoHive();\n    return $first;"),
    ),
    rewrites(
      within("if (isset($hives[1])) { $first = $hives[1]; } else { throw new NoHive(); }"),
      within("$first = $hives[1] ?? throw new NoHive();"),
    ),
    holds(within("if (find($n) === null) { throw new NoHive(); } return find($n);"), "calls something"),
    ignores(within("if ($hive === null) { throw new NoHive(); } return $hive->name;")),
    ignores(within("if ($hive !== null) { throw new Taken(); } return $hive;")),
    ignores(within("if ($hive === null) { throw new NoHive(); } note(); return $hive;")),
    ignores(within("if ($hive !== null) { $n = $hive; } throw new NoHive();")),
    trialsIn("php", "7.4").ignores(within("if ($hive === null) { throw new NoHive(); } return $hive;")),
  ],
});
