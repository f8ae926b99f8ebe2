import type { ReadHere } from "uvran/core";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Offer, Range, Sample, TrialRow } from "./engine/protocol";
import { openedFiles, save } from "./opened-files";
import { nextPane, selectIn, useShortcuts } from "./page-keys";
import { FromEdit } from "./parts/FromEdit";
import { HerePanel } from "./parts/HerePanel";
import { Holes } from "./parts/Holes";
import { KeysDialog } from "./parts/KeysDialog";
import { LoadingBar } from "../../common/LoadingBar.js";
import { RuleEditor } from "./parts/RuleEditor";
import { Sheet } from "./parts/Sheet";
import { Toolbar } from "./parts/Toolbar";
import { Trials } from "./parts/Trials";
import { STARTERS } from "./starters";
import type { BenchState } from "./state";
import type { Action } from "./typing/protocol";
import { copyLink, useAddress } from "./useAddress";
import { useBench, type SheetSample } from "./useBench";
import { useRun } from "./useRun";
import { templateAt, useSpot, type Caret } from "./useSpot";
import { useWorkers } from "./useWorkers";

const NO_SAMPLES: readonly SheetSample[] = [];

/** Code is opened unfolded where there are no more pieces of it than this. */
const FEW = 6;

/** Where rules are made: code on one side, with what comes of it in place; the rule, its holes and its trials on the other. */
export function Workbench() {
  const { workers, loading } = useWorkers();
  const { held, state, actions } = useBench();
  const [view, setView] = useState<"code" | "edit">("code");
  const [caret, setCaret] = useState<Caret>();
  const [pointed, setPointed] = useState<Range>();
  const [notice, setNotice] = useState<string>();
  const [isHelp, setHelp] = useState(false);
  /** Did the rule come with a link, so that nobody has read it yet? */
  const [isForeign, setForeign] = useState(false);
  const {
    sheets: samples,
    rule,
    revision,
    edit,
  } = held ?? {
    sheets: NO_SAMPLES,
    rule: "",
    revision: 0,
    edit: undefined,
  };
  const run = useRun(held && !isForeign ? workers : undefined, rule, samples);
  const { parts, result, problem, isBehind } = run;
  const spot = useSpot(workers, caret, samples, parts, result);
  // What was pointed at is gone when the caret is elsewhere.
  useEffect(() => setPointed(undefined), [spot]);
  const holeOrder = useMemo(() => parts.holes.map(({ name }) => name), [parts]);
  const loadFrom = (found: BenchState, foreign: boolean): void => {
    actions.load(found);
    setForeign(foreign);
  };
  useAddress(isForeign ? undefined : state, loadFrom, setNotice);

  const ruleIndex = Math.max(
    0,
    parts.rules.findIndex(
      ({ start, end }) => caret?.in === "rule" && caret.offset >= start && caret.offset <= end,
    ),
  );
  const current = parts.rules[ruleIndex];

  const act = async (action: Action): Promise<void> => {
    if (!workers) return;
    const done = await workers.typing.act(rule, action);
    if ("problem" in done) setNotice(done.problem);
    else {
      setNotice(undefined);
      actions.setRule(done.text);
    }
  };
  const sampleOf = (path: string): Sample | undefined => samples.find((one) => one.path === path);

  const begin = async (from: Range | ReadHere | undefined, says: string): Promise<void> => {
    const sample = caret?.in === "sample" ? sampleOf(caret.path) : undefined;
    const file = sample && from && (await workers?.engine().begin(sample, from));
    if (file === undefined) return;
    actions.setRule(file);
    setNotice(says);
  };
  const startRule = (): Promise<void> => {
    const last = spot?.in === "sample" ? spot.here.trail.at(-1) : undefined;
    return begin(
      caret?.selection ?? last,
      "A new rule: say in it what the code becomes, and open the parts of it that may differ.",
    );
  };
  const startReading = (reading: ReadHere): Promise<void> =>
    begin(reading, "A new rule: every spelling of this is found. Say in it what the code becomes.");
  const makeHole = async (): Promise<void> => {
    if (!workers) return;
    const template = caret?.in === "rule" ? templateAt(parts, caret.offset) : undefined;
    if (!template || caret?.in !== "rule")
      return setNotice("Put the caret into the old code of the rule: into the snippet behind `was`.");
    const last = spot?.in === "rule" ? spot.trail.at(-1) : undefined;
    const range = caret.selection ? trimmed(rule, caret.selection) : last;
    const kind = range && (await workers.engine().kindFor(template, range));
    if (!range || kind === undefined)
      return setNotice(
        "No hole can stand there: select an expression, a name, a type, a statement or a list of them.",
      );
    await act({ does: "open", start: range.start, end: range.end, kind });
  };
  const widen = async (name: string): Promise<void> => {
    const template = current?.was.find(({ items }) =>
      items.some((item) => item.is === "hole" && item.name === name),
    );
    const item = template?.items.find((one) => one.is === "hole" && one.name === name);
    const range = template && item && (await workers?.engine().wider(template, item));
    if (!range) return setNotice(`\`${name}\` cannot stand for more: the whole pattern would be a hole.`);
    await act({ does: "widen", name, ...range });
  };
  const makeTrial = async (path: string): Promise<void> => {
    const made = result?.samples.find((one) => one.path === path);
    const sample = sampleOf(path);
    if (!workers || !made || !sample || made.text !== sample.text) return;
    const trial = await workers.engine().trialOf(path, current?.id);
    if ("problem" in trial) setNotice(trial.problem);
    else await act({ does: "trial", rule: ruleIndex, ...trial });
  };
  const openTrial = async ({ language, was }: TrialRow): Promise<void> => {
    const ending = (await workers?.engine().endingOf(language)) ?? ".txt";
    addSample({ path: `trial${ending}`, text: was });
  };
  const addSample = (sample: Sample): void => {
    actions.addSample(sample);
    setView("code");
  };
  const openFiles = async (files: readonly File[]): Promise<void> => {
    if (!workers) return;
    const engine = workers.engine();
    const { samples: found, said } = await openedFiles(files, (path) => engine.holdsCode(path));
    if (found.length > 0) actions.setSamples(found);
    setNotice(found.length === 0 ? `No file with code that Uvran reads. ${said ?? ""}` : said);
    setView("code");
  };
  const offersFor = useCallback(
    async (name: string): Promise<readonly Offer[]> => (await workers?.engine().offers(name, samples)) ?? [],
    [workers, samples],
  );
  const selectRange = (range: Range): void => {
    if (!caret) return;
    const pane = document.querySelector(
      caret.in === "rule"
        ? ".rule-editor .cm-content"
        : `[aria-label="${CSS.escape(`Code of ${caret.path}`)}"].cm-content`,
    );
    if (pane instanceof HTMLElement) selectIn(pane, range);
  };
  const openEdit = async (): Promise<void> => {
    setView("edit");
    const [first] = samples;
    if (!edit && first) actions.setEdit({ path: first.path, before: first.text, after: first.text });
  };

  useShortcuts({
    r: () => void startRule(),
    h: () => void makeHole(),
    t: () => void makeTrial(caret?.in === "sample" ? caret.path : (samples[0]?.path ?? "")),
    e: () => (view === "edit" ? setView("code") : void openEdit()),
    F1: () => setHelp(true),
    F6: () => nextPane(1),
    "Shift+F6": () => nextPane(-1),
  });

  const ids = result?.rules.map(({ id }) => id) ?? [];
  return (
    <main aria-busy={isBehind}>
      <Toolbar
        view={view}
        onView={(next) => (next === "edit" ? void openEdit() : setView(next))}
        onStarter={(index) => {
          const { samples, rule } = STARTERS[index]!;
          loadFrom({ samples, rule, edit: undefined }, false);
          setView("code");
          setNotice(undefined);
        }}
        onFiles={(files) => void openFiles(files)}
        onNewSample={() => addSample({ path: `code${extensionFor(current?.language)}`, text: "" })}
        onRuleFile={actions.setRule}
        onSaveRule={() => save(`${current?.id?.split("/")[1] ?? "rule"}.ts`, rule)}
        onLink={() => void copyLink(state, setNotice)}
        onHelp={() => setHelp(true)}
      />
      <div className="notices">
        {isForeign && (
          <p className="notice" role="alert">
            This rule came with a link, and a rule is a program. Read it first.{" "}
            <button type="button" onClick={() => setForeign(false)}>
              Run the rule
            </button>
          </p>
        )}
        {notice !== undefined && (
          <p className="notice" role="status">
            {notice}{" "}
            <button
              type="button"
              className="plain"
              aria-label="Close this message"
              onClick={() => setNotice(undefined)}
            >
              ×
            </button>
          </p>
        )}
      </div>
      <section className="code" aria-label={view === "code" ? "Code" : "Draft from an edit"} data-pane>
        {view === "edit" && edit && workers ? (
          <FromEdit
            edit={edit}
            samples={samples}
            workers={workers}
            onChange={actions.setEdit}
            onTake={(source, { path, before }) => {
              actions.setRule(source);
              actions.putSample({ path, text: before });
              setView("code");
            }}
          />
        ) : (
          samples.map((sample, i) => (
            <Sheet
              key={sample.id}
              sample={sample}
              result={result?.samples.find(({ path }) => path === sample.path)}
              holeOrder={holeOrder}
              pointed={caret?.in === "sample" && caret.path === sample.path ? pointed : undefined}
              startsOpen={samples.length <= FEW || i === 0}
              hasRule={ids.length > 0}
              onChange={(typed) => actions.typeSample(sample.id, typed)}
              onRemove={() => actions.removeSample(sample.id)}
              onTrial={() => void makeTrial(sample.path)}
              onPoint={(offset, selection) =>
                setCaret({ in: "sample", path: sample.path, offset, selection })
              }
            />
          ))
        )}
        {view === "code" && samples.length === 0 && (
          <p className="hint">No code yet: open files or a folder, or add a piece of your own.</p>
        )}
      </section>
      <section className="rule" aria-label="Rule">
        {problem !== undefined && (
          <p className="problem" role="alert">
            {problem}
          </p>
        )}
        <div className="rule-file" data-pane>
          {workers && state && (
            <RuleEditor
              text={rule}
              revision={revision}
              parts={parts}
              typing={workers.typing}
              pointed={caret?.in === "rule" ? pointed : undefined}
              onChange={actions.typeRule}
              onPoint={(offset, selection) => setCaret({ in: "rule", offset, selection })}
            />
          )}
        </div>
        <div className="panels">
          <section className="panel" aria-labelledby="holes-title" data-pane>
            <h2 id="holes-title">Holes</h2>
            <Holes
              parts={parts}
              rule={current}
              result={result}
              onKind={(name, kind) => void act({ does: "kind", name, kind })}
              onLimit={(name, limit, source) => void act({ does: "limit", name, limit, source })}
              onRename={(name, to) => void act({ does: "rename", name, to })}
              onWiden={(name) => void widen(name)}
              onWriteOut={(name, code) => void act({ does: "write-out", name, code })}
              onAsk={({ source, imports }) => void act({ does: "ask", rule: ruleIndex, source, imports })}
              onDoNotAsk={(source) => void act({ does: "do-not-ask", rule: ruleIndex, source })}
              offersFor={offersFor}
            />
          </section>
          <section className="panel" aria-labelledby="trials-title" data-pane>
            <h2 id="trials-title">Trials</h2>
            <Trials trials={result?.trials ?? []} onOpen={(trial) => void openTrial(trial)} />
          </section>
        </div>
      </section>
      <section className="here" aria-label="At the caret" data-pane>
        <LoadingBar loading={loading} isStarting={!result && problem === undefined} />
        <HerePanel
          spot={spot}
          onPointed={setPointed}
          onSelect={selectRange}
          onStart={() => void startRule()}
          onStartReading={(reading) => void startReading(reading)}
          onHole={() => void makeHole()}
        />
      </section>
      {isHelp && <KeysDialog onClose={() => setHelp(false)} />}
    </main>
  );
}

/** A range without the white space at its ends. */
function trimmed(text: string, { start, end }: Range): Range {
  const code = text.slice(start, end);
  return {
    start: start + code.length - code.trimStart().length,
    end: end - (code.length - code.trimEnd().length),
  };
}

/** The ending of files in a language. */
function extensionFor(language: string | undefined): string {
  const path = STARTERS.find((one) => one.language === language)?.samples[0]?.path ?? "code.ts";
  return path.slice(path.lastIndexOf("."));
}
