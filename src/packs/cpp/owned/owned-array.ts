import {
  condition,
  cpp,
  declarationOfHole,
  everyUseOf,
  holes,
  isUsedAfter,
  need,
  no,
  rule,
  trialsIn,
  unknown,
  use,
  usesOf,
  waysOutWithout,
  yes,
} from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import { isInFunction } from "../pointers.js";
import { harmlessUses } from "./pointer-uses.js";
import { goesAtOnce, goesUnnoticed, statementsBetween } from "./release.js";

const { type, p, size } = holes({ type: "type", p: "name", size: "expression" });

/** The statements that delete the array. */
function deletesOf(match: Match): SyntaxNode[] {
  const to = declarationOfHole(match, p);
  return (to ? usesOf(to).references : []).flatMap(({ node }) => {
    const { parent } = node;
    const isOne = parent?.is("delete_expression") === true && parent.has("[");
    return isOne && parent.parent?.is("expression_statement") ? [parent.parent] : [];
  });
}

const isItem = (match: Match): boolean =>
  match.node.parent?.is("subscript_expression") === true && match.node.field === "argument";
const isLast = (match: Match): boolean => {
  const to = declarationOfHole(match, p);
  return to !== undefined && goesAtOnce(match.node, to);
};

const { rewrites, holds, ignores } = trialsIn("cpp", "11");

export const ownedArray = rule({
  id: "cpp/owned-array",
  kind: "idiom",
  title: "Use a vector for an array on the heap",
  why: "An array that is deleted by hand is lost when something in between throws, and delete without brackets breaks it.",
  target: "11",
  was: cpp`${type} *${p} = new ${type}[${size}];`,
  where: [(match) => isInFunction(match.node), (match) => deletesOf(match).length > 0],
  given: [
    condition("it is deleted on every way out", (match) => {
      const to = declarationOfHole(match, p);
      const name = match.textOf(p);
      const ways = to && waysOutWithout(match.node, deletesOf(match), to);
      if (!ways)
        return no("resource.every-path", `not all ways from \`${name}\` to the end are known`, match.node);
      const open = ways.find(({ by }) => by !== "exception");
      return open
        ? no("resource.every-path", `\`${name}\` is deleted on some ways only`, open.at ?? match.node)
        : yes("resource.every-path", `\`${name}\` is deleted on every way out`);
    }),
    condition("it is deleted where it goes", (match) => {
      const to = declarationOfHole(match, p);
      const early = deletesOf(match).find((statement) => !to || !goesAtOnce(statement, to));
      return early
        ? no("resource.used-after", `\`${match.textOf(p)}\` is deleted before it would go`, early)
        : yes("resource.sooner", "it goes at once");
    }),
    condition("it is not used after it was deleted", (match) => {
      const to = declarationOfHole(match, p);
      for (const statement of deletesOf(match)) {
        const answer = to
          ? isUsedAfter(to, statement)
          : unknown("name.not-resolved", "what declares it is not known");
        if (answer.is === "yes")
          return no("resource.used-after", `\`${match.textOf(p)}\` is used after it was deleted`, statement);
        if (answer.is === "unknown") return answer;
      }
      return yes("resource.used-after", "it is not used after it was deleted");
    }),
    condition("nobody notices that they go when something in between throws", (match) =>
      /^(unsigned |signed )?(char|short|int|long|float|double|size_t|u?int\d+_t|unsigned|wchar_t)\b/.test(
        match.textOf(type),
      )
        ? yes("resource.sooner", "nothing is done when numbers go")
        : goesUnnoticed(match, match.textOf(type), statementsBetween(match.node, deletesOf(match))),
    ),
    condition("items are not packed into bits", (match) =>
      match.textOf(type) === "bool"
        ? no("value.kind", "a vector of `bool` holds no `bool`", match.node)
        : yes("value.kind", "they are items"),
    ),
    condition("nobody minds that the items begin as zero", (match) => {
      const isNumber = /\b(char|short|int|long|float|double|size_t|u?int\d+_t|unsigned|wchar_t)\b/.test(
        match.textOf(type),
      );
      return isNumber
        ? yes("value.kind", "what was left as it was found is zero now")
        : unknown(
            "value.kind",
            `a vector of \`${match.textOf(type)}\` makes its items in another way`,
            match.node,
          );
    }),
  ],
  uses: everyUseOf(p, [
    use(cpp`delete[] ${p};`)
      .when(isLast)
      .goes(),
    use(cpp`${p}`)
      .when(isItem)
      .stays(),
    ...harmlessUses(p, {
      raw: cpp`${p}.data()`,
      isTested: false,
      isRead: false,
      releasedBy: undefined,
    }).filter(({ place, test }) => place === undefined && test !== undefined),
  ]),
  needs: [need("<vector>")],
  becomes: cpp`std::vector<${type}> ${p}(${size});`,
  trials: [
    rewrites(
      `
      int sum(int n) {
        int* weights = new int[n];
        fill(weights, n);
        int all = weights[0] + weights[n - 1];
        delete[] weights;
        return all;
      }
      `,
      `
      #include <vector>

      int sum(int n) {
        std::vector<int> weights(n);
        fill(weights.data(), n);
        int all = weights[0] + weights[n - 1];
        return all;
      }
      `,
    ),
    rewrites(
      "void f() { Hive *hives = new Hive[3]; open(hives); delete[] hives; }\n",
      "#include <vector>\n\nvoid f() { std::vector<Hive> hives(3); open(hives.data()); }\n",
      "likely",
    ),
    holds("void f(int n) { int* a = new int[n]; if (n) return; delete[] a; }\n", "on some ways only"),
    holds("void f(int n) { int* a = new int[n]; a++; delete[] a; }\n", "does not know"),
    holds("void f(int n) { int* a = new int[n]; delete a; delete[] a; }\n", "does not know"),
    holds("void f(int n) { int* a = new int[n]; delete[] a; log(); }\n", "before it would go"),
    holds("void f(int n) { int* a = new int[n]; int* b = a; delete[] a; }\n", "does not know"),
    holds("void f(int n) { bool* a = new bool[n]; delete[] a; }\n", "holds no `bool`"),
    ignores("void f(int n) { int* a = new int[n]; delete a; }\n"),
    ignores("void f(int n) { int* a = new int[n]; keep(a); }\n"),
    ignores("void f(int n) { int* a = new int(n); delete a; }\n"),
  ],
});
