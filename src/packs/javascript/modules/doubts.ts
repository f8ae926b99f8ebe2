import { shortened, unknown } from "../../../core.js";
import type { Answer } from "../../../core.js";
import { type Forms, handedOnBy } from "./forms.js";
import { overtakenIn } from "./order.js";
import type { Reading } from "./reading.js";

/** What may be otherwise once files are modules, and how much that lowers the trust. */
export class Doubts {
  readonly likely: Answer[] = [];
  readonly possible: Answer[] = [];

  /** Adds what may be otherwise in a file. Throws a NotAModule where it cannot be as before. */
  addOf(file: Reading, forms: Forms): void {
    const { loadings, mainTests } = file;
    const handedOn = handedOnBy(file, forms);
    if (handedOn)
      this.possible.push(
        unknown(
          "value.kind",
          "what is loaded is handed on, and the object of a module cannot be changed",
          handedOn,
        ),
      );
    const overtaken = overtakenIn(file, loadings);
    if (overtaken) this[overtaken.unknownIs].push(overtaken.answer);
    const missing = loadings.find(
      ({ loaded, how }) => loaded.is === "package" && !loaded.isKnown && how !== "stays" && how !== "bare",
    );
    if (missing)
      this.possible.push(
        unknown(
          "name.not-resolved",
          `\`${missing.name}\` is not installed here, and may give something else to \`import\``,
          missing.call,
        ),
      );
    const open = loadings.find(({ loaded }) => loaded.is === "unknown");
    if (open)
      this.possible.push(
        unknown(
          "name.not-resolved",
          `what \`${shortened(open.call.text)}\` loads is not known; it cannot load a file of the package any more`,
          open.call,
        ),
      );
    const late = loadings.find(({ isLate }) => isLate);
    if (late)
      this.likely.push(
        unknown(
          "flow.order",
          `\`${late.name}\` is loaded at once from now on, and not only when it is needed`,
          late.call,
        ),
      );
    if (mainTests[0])
      this.likely.push(
        unknown(
          "value.result",
          "a program that is started through a link, or without its ending, is not recognised",
          mainTests[0],
        ),
      );
  }
}
