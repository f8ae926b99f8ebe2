import { condition, no, yes } from "../../core.js";
import type { Answer, Condition, Match } from "../../core.js";

/** A header that C reads too says so, or has nothing in it that only C++ knows. */
function isReadByCpp({ tree, around }: Match): Answer {
  const shared = /extern\s+"C"|__cplusplus/.exec(tree.text)?.[0];
  if (shared !== undefined)
    return no("version.target", `C may read this file too: it says \`${shared}\``, tree.root);
  const isPlainC =
    /\.h$/.test(around.path) &&
    !/\b(class|template|namespace|public|private|virtual|constexpr|using)\b|::/.test(tree.text);
  return isPlainC
    ? no("version.target", "nothing in this header is C++, so C may read it too", tree.root)
    : yes("version.target", "nothing says that C reads this file");
}

/** C knows neither casts with names nor `using` nor `constexpr`. */
export function onlyCppReads(): Condition {
  return condition("only C++ reads the file", isReadByCpp);
}
