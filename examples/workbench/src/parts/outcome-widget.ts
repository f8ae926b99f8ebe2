import { WidgetType, type EditorView } from "@codemirror/view";
import type { Outcome } from "../engine/protocol";
import { SIGNS } from "./Words";

const NAMES: Readonly<Record<Outcome["is"], string>> = {
  certain: "certain",
  likely: "likely",
  possible: "possible",
  held: "held back",
  advice: "advice",
  same: "fits",
  failed: "broke down",
};

/** What came of a place, below its code. */
export class OutcomeWidget extends WidgetType {
  readonly #key: string;

  constructor(readonly outcome: Outcome) {
    super();
    this.#key = JSON.stringify(outcome);
  }

  override eq(other: OutcomeWidget): boolean {
    return other.#key === this.#key;
  }

  override ignoreEvent(): boolean {
    return true;
  }

  override toDOM(view: EditorView): HTMLElement {
    const { is, says, rules, lines, answers, cautions, notes, line } = this.outcome;
    const list = element("ul", "answers");
    for (const says of cautions) list.append(entry("caution", "!", says));
    for (const { must, is, says, line: at } of answers) {
      const said = must === undefined || must === says ? says : `${must}: ${says}`;
      list.append(entry(is, SIGNS[is], at === undefined || at === line ? said : `${said} (line ${at})`));
    }
    for (const says of notes) list.append(entry("note", "·", says));
    const head = element("p", "outcome-head");
    head.append(element("b", "", NAMES[is]), " ");
    words(head, says);
    if (rules.length > 0) head.append(" ", element("span", "quiet", rules.join(" + ")));
    const box = element("div", `outcome ${is}`);
    box.append(head);
    if (lines.length > 0) {
      const pre = element("pre", "came");
      for (const { mark, text } of lines)
        pre.append(element("span", mark === "+" ? "new" : mark === "-" ? "old" : "gap", `${mark} ${text}\n`));
      box.append(pre);
    }
    if (list.childElementCount > 0) {
      const details = document.createElement("details");
      details.open = is === "held" || cautions.length > 0;
      details.append(element("summary", "", summaryOf(this.outcome)), list);
      details.addEventListener("toggle", () => view.requestMeasure());
      box.append(details);
    }
    // The editor measures what it shows without margins.
    const frame = element("div", "outcome-frame");
    frame.append(box);
    return frame;
  }
}

function summaryOf({ answers, cautions }: Outcome): string {
  const count = (is: string): number => answers.filter((one) => one.is === is).length;
  const said = [
    cautions.length > 0 ? `${cautions.length} to watch` : "",
    count("yes") > 0 ? `${count("yes")} yes` : "",
    count("unknown") > 0 ? `${count("unknown")} unknown` : "",
    count("no") > 0 ? `${count("no")} no` : "",
  ].filter((one) => one !== "");
  return said.length > 0 ? `Answers: ${said.join(", ")}` : "Notes";
}

function element(name: string, className: string, text?: string): HTMLElement {
  const made = document.createElement(name);
  if (className !== "") made.className = className;
  if (text !== undefined) made.textContent = text;
  return made;
}

function entry(className: string, sign: string, says: string): HTMLElement {
  const item = element("li", className);
  item.append(element("span", "sign", sign), " ");
  words(item, says);
  return item;
}

/** Adds a sentence, with the code in it set as code. */
function words(into: HTMLElement, says: string): void {
  says.split("`").forEach((part, i) => into.append(i % 2 === 1 ? element("code", "", part) : part));
}
