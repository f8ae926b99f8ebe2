import { useMemo, useState } from "react";
import { languageOfFile, parse } from "uvran";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";
import { ChangeCard, Sentence } from "./ChangeCard";
import { CodeEditor, type Range } from "./CodeEditor";
import { SAMPLES } from "./samples";
import { Trail, type Step } from "./Trail";
import { useFindings } from "./useFindings";

const RULES = [...javascriptPack.rules, ...pythonPack.rules];

/** Code on one side; on the other what a rule, or all of them, would change, with the evidence. */
export function Workbench() {
  const [sample, setSample] = useState(SAMPLES[0]!);
  const [code, setCode] = useState(sample.code);
  const [ruleId, setRuleId] = useState("");
  const [pointed, setPointed] = useState<number>();
  const [marked, setMarked] = useState<Range>();
  const rules = useMemo(() => (ruleId === "" ? RULES : RULES.filter((rule) => rule.id === ruleId)), [ruleId]);
  const findings = useFindings(sample.file, code, rules);
  const ready = findings.state === "ready" && findings.code === code && findings.file === sample.file;
  const steps = useMemo(
    () => (ready && pointed !== undefined ? stepsTo(sample.file, code, pointed) : []),
    [ready, sample.file, code, pointed],
  );

  const choose = (title: string): void => {
    const next = SAMPLES.find((candidate) => candidate.title === title)!;
    setSample(next);
    setCode(next.code);
    setPointed(undefined);
  };

  return (
    <main>
      <header className="bar">
        <h1>Uvran workbench</h1>
        <label>
          Code{" "}
          <select id="sample" value={sample.title} onChange={(event) => choose(event.target.value)}>
            {SAMPLES.map(({ title }) => (
              <option key={title}>{title}</option>
            ))}
          </select>
        </label>
        <label>
          Rule{" "}
          <select id="rule" value={ruleId} onChange={(event) => setRuleId(event.target.value)}>
            <option value="">all rules</option>
            {RULES.map(({ id }) => (
              <option key={id}>{id}</option>
            ))}
          </select>
        </label>
        {ruleId !== "" && <p className="why">{rules[0]?.why}</p>}
      </header>
      <section className="code" aria-label="Code">
        <CodeEditor file={sample.file} code={code} marked={marked} onChange={setCode} onPoint={setPointed} />
      </section>
      <section className="result" aria-label="Result" aria-live="polite">
        {findings.state === "loading" && <p className="quiet">Loading the grammar …</p>}
        {findings.state === "failed" && <p className="caution">{findings.message}</p>}
        {findings.state === "ready" && <Results {...findings} />}
      </section>
      <Trail steps={steps} onMark={setMarked} />
    </main>
  );
}

type Ready = Extract<ReturnType<typeof useFindings>, { state: "ready" }>;

function Results({ code, result }: Ready) {
  const { changes, heldBack, unparsed } = result;
  if (unparsed) return <p className="caution">There is a syntax error in line {unparsed.line}.</p>;
  return (
    <>
      <p className="count">
        {changes.length} {changes.length === 1 ? "change" : "changes"}, {heldBack.length} held back
      </p>
      {changes.map((change) => (
        <ChangeCard key={change.id} change={change} code={code} />
      ))}
      {heldBack.map((entry) => (
        <article key={`${entry.rule}:${entry.line}`} className="card held">
          <header>
            <h2>Held back</h2>
            <p>
              line {entry.line} · {entry.rule}
            </p>
          </header>
          <ul>
            <li>
              <Sentence text={entry.reason} />
              {entry.at !== undefined && entry.at !== entry.line && ` (line ${entry.at})`}
            </li>
          </ul>
        </article>
      ))}
    </>
  );
}

function stepsTo(file: string, code: string, offset: number): Step[] {
  const tree = parse(code, languageOfFile(file)!);
  const node = tree.nodeAt(Math.min(offset, code.length));
  return [node, ...node.ancestors()]
    .reverse()
    .map(({ kind, field, start, end }) => ({ kind, field, start, end }));
}
