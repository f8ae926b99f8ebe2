import { Dialog } from "../../../common/Dialog";

const KEYS: readonly (readonly [keys: readonly string[], does: string])[] = [
  [["Ctrl", "Alt", "R"], "start a rule from the code at the caret, or from the selection"],
  [["Ctrl", "Alt", "H"], "make a hole of the part of the old code at the caret, or of the selection"],
  [["Ctrl", "Alt", "T"], "make a trial of the code that the caret is in, or of the first"],
  [["Ctrl", "Alt", "E"], "draft a rule from an edit, and back to the code"],
  [["F6"], "go to the next part of the page; with Shift to the one before"],
  [["Ctrl", "Space"], "words that can stand here, in the rule file"],
  [["F8"], "go to the next complaint of the compiler, in the rule file"],
  [["Ctrl", "Z"], "take back, in any editor"],
  [["Esc", "Tab"], "Tab leaves an editor for what comes next"],
];

/** The keys of the page. */
export function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className="keys">
        {KEYS.map(([keys, does]) => (
          <div key={does}>
            <dt>
              {keys.map((key) => (
                <kbd key={key}>{key}</kbd>
              ))}
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
