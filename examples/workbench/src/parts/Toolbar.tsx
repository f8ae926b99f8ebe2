import { useRef } from "react";
import { STARTERS } from "../starters";

interface Props {
  readonly view: "code" | "edit";
  readonly onView: (view: "code" | "edit") => void;
  readonly onStarter: (index: number) => void;
  readonly onFiles: (files: readonly File[]) => void;
  readonly onNewSample: () => void;
  readonly onRuleFile: (text: string) => void;
  readonly onSaveRule: () => void;
  readonly onLink: () => void;
  readonly onHelp: () => void;
}

/** What the page does as a whole: what to begin with, what to open, what to hand on. */
export function Toolbar(props: Props) {
  const { view, onView, onStarter, onFiles } = props;
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const ruleFile = useRef<HTMLInputElement>(null);
  const taken = (input: HTMLInputElement): readonly File[] => {
    const list = [...(input.files ?? [])];
    input.value = "";
    return list;
  };
  return (
    <header className="bar">
      <h1>Uvran workbench</h1>
      <div className="switch" role="group" aria-label="What the left side shows">
        <button type="button" aria-pressed={view === "code"} onClick={() => onView("code")}>
          Code
        </button>
        <button type="button" aria-pressed={view === "edit"} onClick={() => onView("edit")}>
          From an edit
        </button>
      </div>
      <select
        aria-label="Begin with an example"
        value=""
        onChange={(event) => event.target.value !== "" && onStarter(Number(event.target.value))}
      >
        <option value="">Begin with …</option>
        {STARTERS.map(({ title }, i) => (
          <option key={title} value={i}>
            {title}
          </option>
        ))}
      </select>
      <button type="button" onClick={props.onNewSample}>
        Add code
      </button>
      <button type="button" onClick={() => files.current!.click()}>
        Open files
      </button>
      <button type="button" onClick={() => folder.current!.click()}>
        Open a folder
      </button>
      <span className="gap" />
      <button type="button" onClick={() => ruleFile.current!.click()}>
        Open a rule file
      </button>
      <button type="button" onClick={props.onSaveRule}>
        Save the rule file
      </button>
      <button type="button" onClick={props.onLink}>
        Copy a link
      </button>
      <button type="button" onClick={props.onHelp}>
        Keys <kbd>F1</kbd>
      </button>
      <input
        ref={files}
        type="file"
        multiple
        hidden
        aria-label="Files"
        onChange={(event) => onFiles(taken(event.target))}
      />
      <input
        ref={(input) => {
          folder.current = input;
          // React does not know this attribute by a type of its own.
          input?.setAttribute("webkitdirectory", "");
        }}
        type="file"
        hidden
        aria-label="Folder"
        onChange={(event) => onFiles(taken(event.target))}
      />
      <input
        ref={ruleFile}
        type="file"
        accept=".ts,.mts,.js,.mjs"
        hidden
        aria-label="Rule file"
        onChange={(event) => void taken(event.target)[0]?.text().then(props.onRuleFile)}
      />
    </header>
  );
}
