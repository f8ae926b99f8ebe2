import { cpp, holes, rule, trialsIn } from "../../core.js";
import type { Match, SyntaxNode } from "../../core.js";

const { name, parameters, body } = holes({ name: "name", parameters: "parameters", body: "statements" });

/** A parameter that is only there to be filled. */
interface OutParameter {
  readonly type: string;
  readonly name: string;
}

/** The pointer or reference that the function does nothing with but write through it; undefined where there is none. */
function outParameter(match: Match): OutParameter | undefined {
  for (const parameter of match.all(parameters)) {
    const type = parameter.child("type")?.text;
    const declarator = parameter.child("declarator");
    if (type === undefined || !declarator?.is(["pointer_declarator", "reference_declarator"])) continue;
    const leaf = declarator.lastPart;
    if (!leaf?.is("identifier") || /\bconst\b/.test(parameter.text)) continue;
    const uses = match.all(body).flatMap((statement) => statement.mentions(leaf.text));
    const isFilled = (use: SyntaxNode): boolean => {
      const target = declarator.is("pointer_declarator") ? use.parent : use;
      const isThrough =
        declarator.is("reference_declarator") || use.parent?.is("pointer_expression") === true;
      return isThrough && target?.parent?.is("assignment_expression") === true && target.field === "left";
    };
    if (uses.length > 0 && uses.every(isFilled)) return { type, name: leaf.text };
  }
  return undefined;
}

function returnsFlag(match: Match): boolean {
  const returned = match
    .all(body)
    .flatMap((statement) => [...statement.descendants()])
    .filter((node) => node.is("return_statement"))
    .map((node) => node.firstPart?.text);
  return (
    ["true", "false"].every((value) => returned.includes(value)) &&
    returned.every((value) => /^(true|false)$/.test(value ?? ""))
  );
}

const { reports, ignores } = trialsIn("cpp", "17");

export const pointerAndFlag = rule({
  id: "cpp/pointer-and-flag",
  kind: "idiom",
  title: "Return std::optional for a value that may be missing",
  why: "A flag beside a pointer to fill lets callers read the value without asking whether it is there.",
  target: "17",
  was: [
    cpp`
      bool ${name}(${parameters}) {
        ${body}
      }
    `,
  ],
  where: [returnsFlag, (match) => outParameter(match) !== undefined],
  advice: (match) => {
    const out = outParameter(match)!;
    return `return \`std::optional<${out.type}>\` and drop the parameter \`${out.name}\``;
  },
  trials: [
    reports(
      "bool find(int id, Hive *hive) { if (id < 0) return false; *hive = hives[id]; return true; }\n",
      "`std::optional<Hive>`",
    ),
    reports(
      "bool weigh(double& kilos) { if (!scale) { return false; } kilos = 3; return true; }\n",
      "drop the parameter `kilos`",
    ),
    ignores("bool find(int id, Hive *hive) { if (id < 0) return false; hive->open(); return true; }\n"),
    ignores("bool find(int id, const Hive *hive) { if (id < 0) return false; return true; }\n"),
    ignores("bool find(int *n) { *n = *n + 1; if (more) return false; return true; }\n"),
    ignores("bool find(Hive *hive) { *hive = h; return ok; }\n"),
    ignores("int find(Hive *hive) { *hive = h; return 1; }\n"),
    trialsIn("cpp", "14").ignores(
      "bool find(int id, Hive *hive) { if (id < 0) return false; *hive = hives[id]; return true; }\n",
    ),
  ],
});
