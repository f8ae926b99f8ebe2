import { isSideEffectFree, mayChangePlaces, weakest, yes, type Answer } from "../../analysis/index.js";
import { Hole, type Snippet } from "../../pattern/index.js";
import { condition, type Condition } from "../condition.js";

/**
 * What the holes of the old code stand for is evaluated as often as before, and in the same order, wherever that can be
 * noticed. Undefined where new code keeps all of them in their order.
 */
export function evaluatedAlike(old: Snippet, now: Snippet): Condition | undefined {
  const before = holesOf(old);
  const after = holesOf(now);
  const again = before.filter((hole) => after.filter((one) => one === hole).length !== 1);
  const moved = before.flatMap((first, i) =>
    before.slice(i + 1).flatMap((second) => {
      const [a, b] = [after.indexOf(first), after.indexOf(second)];
      return a >= 0 && b >= 0 && b < a ? [[first, second] as const] : [];
    }),
  );
  if (again.length + moved.length === 0) return undefined;
  return condition("nothing is evaluated more often or in another order that can be noticed", (match) => {
    const freeOf = (hole: Hole): Answer => {
      const [first, ...more] = match.all(hole).map(isSideEffectFree);
      return first ? weakest([first, ...more]) : yes("flow.order", "nothing stands there");
    };
    const answers = again.map(freeOf);
    for (const [first, second] of moved) answers.push(mayChangePlaces(match.all(first), match.all(second)));
    return weakest(answers as [Answer, ...Answer[]]);
  });
}

/** The holes of a snippet that stand for values, each as often as it is there. */
function holesOf({ parts }: Snippet): Hole[] {
  return parts.filter((part): part is Hole => part instanceof Hole);
}
