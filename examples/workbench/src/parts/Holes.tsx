import { HOLE_KINDS } from "uvran/core";
import { useEffect, useState } from "react";
import type { Filled, Offer, RunResult } from "../engine/protocol";
import type { FileParts, HoleParts, RuleParts } from "../typing/protocol";
import { plural, SIGNS, Words } from "./Words";

const LIMITS = [
  { name: "text", says: "has the text", example: "/^get/" },
  { name: "like", says: "fits", example: "hive.queen" },
  { name: "unlike", says: "does not fit", example: "next()" },
  { name: "node", says: "is of the grammar's kind", example: "identifier" },
] as const;

/** What the panel of holes asks for. */
export interface HoleCalls {
  readonly onKind: (name: string, kind: string) => void;
  readonly onLimit: (name: string, limit: string, source: string | undefined) => void;
  readonly onRename: (name: string, to: string) => void;
  readonly onWiden: (name: string) => void;
  readonly onWriteOut: (name: string, code: string) => void;
  readonly onAsk: (offer: Offer) => void;
  readonly onDoNotAsk: (source: string) => void;
  readonly offersFor: (name: string) => Promise<readonly Offer[]>;
}

interface Props extends HoleCalls {
  readonly parts: FileParts;
  /** The rule that is worked on. */
  readonly rule: RuleParts | undefined;
  readonly result: RunResult | undefined;
}

/** The holes of the rule: what each is, what it stands for in the samples, and what can be asked about it. */
export function Holes(props: Props) {
  const { parts, rule, result } = props;
  const [asking, setAsking] = useState<string>();
  const filled = result?.samples.flatMap(({ holes }) => holes) ?? [];
  if (parts.holes.length === 0)
    return (
      <p className="hint">
        No hole yet. Select a part of the old code in the rule, or put the caret into it, and press{" "}
        <kbd>Ctrl</kbd> <kbd>Alt</kbd> <kbd>H</kbd>.
      </p>
    );
  return (
    <ul className="holes">
      {parts.holes.map((hole, i) => (
        <li key={hole.name}>
          <HoleRow
            {...props}
            hole={hole}
            colour={i % 6}
            filled={filled.filter(({ name }) => name === hole.name)}
            isAsking={asking === hole.name}
            onAsking={() => setAsking(asking === hole.name ? undefined : hole.name)}
          />
          {asking === hole.name && (
            <Offers
              hole={hole}
              rule={rule}
              result={result}
              offersFor={props.offersFor}
              onAsk={props.onAsk}
              onDoNotAsk={props.onDoNotAsk}
            />
          )}
        </li>
      ))}
    </ul>
  );
}

interface RowProps extends HoleCalls {
  readonly hole: HoleParts;
  readonly rule: RuleParts | undefined;
  readonly colour: number;
  readonly filled: readonly Filled[];
  readonly isAsking: boolean;
  readonly onAsking: () => void;
}

function HoleRow(props: RowProps) {
  const { hole, colour, filled, isAsking, onAsking, onKind, onWiden, onWriteOut } = props;
  const texts = [...new Set(filled.map(({ text }) => text))];
  const [first] = texts;
  return (
    <div className="hole">
      <NameField name={hole.name} colour={colour} onRename={props.onRename} />
      <select
        aria-label={`Kind of ${hole.name}`}
        value={hole.kind}
        onChange={(event) => onKind(hole.name, event.target.value)}
      >
        {HOLE_KINDS.map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
      <Limits hole={hole} rule={props.rule} onLimit={props.onLimit} />
      <p className="stands-for">
        {texts.length === 0 ? (
          <span className="quiet">stands for nothing in the samples</span>
        ) : (
          texts.slice(0, 4).map((text) => <code key={text}>{shortened(text) || "(nothing)"}</code>)
        )}
        {texts.length > 4 && <span className="quiet"> and {texts.length - 4} more</span>}
      </p>
      <span className="buttons">
        <button type="button" onClick={() => onWiden(hole.name)} title="The hole takes in the code around it">
          Wider
        </button>
        <button
          type="button"
          disabled={first === undefined}
          onClick={() => onWriteOut(hole.name, first ?? "")}
          title="The hole goes; what it stands for first is written out, to open a smaller part of it"
        >
          Write out
        </button>
        <button type="button" aria-expanded={isAsking} onClick={onAsking}>
          Conditions
        </button>
      </span>
    </div>
  );
}

function NameField({
  name,
  colour,
  onRename,
}: {
  readonly name: string;
  readonly colour: number;
  readonly onRename: (name: string, to: string) => void;
}) {
  const [typed, setTyped] = useState(name);
  useEffect(() => setTyped(name), [name]);
  const take = (): void => {
    if (typed !== name) onRename(name, typed);
    setTyped(name);
  };
  return (
    <input
      className={`hole-name hole-${colour}`}
      aria-label={`Name of the hole ${name}`}
      value={typed}
      size={Math.max(4, typed.length)}
      spellCheck={false}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === "Enter" && take()}
    />
  );
}

/** What narrows a hole beside its kind. */
function Limits({
  hole,
  rule,
  onLimit,
}: {
  readonly hole: HoleParts;
  readonly rule: RuleParts | undefined;
  readonly onLimit: HoleCalls["onLimit"];
}) {
  const [adding, setAdding] = useState<(typeof LIMITS)[number]>();
  const [typed, setTyped] = useState("");
  const take = (): void => {
    if (adding && typed.trim() !== "")
      onLimit(hole.name, adding.name, sourceOf(adding.name, typed.trim(), rule));
    setAdding(undefined);
    setTyped("");
  };
  return (
    <span className="limits">
      {hole.limits.map(({ name, source }) => (
        <span key={name} className="limit">
          {LIMITS.find((one) => one.name === name)?.says ?? name} <code>{source}</code>
          <button
            type="button"
            className="plain"
            aria-label={`${hole.name} need no longer have ${name}`}
            onClick={() => onLimit(hole.name, name, undefined)}
          >
            ×
          </button>
        </span>
      ))}
      {adding ? (
        <input
          className="limit-field"
          autoFocus
          aria-label={`${hole.name} ${adding.says}`}
          placeholder={adding.example}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === "Enter") take();
            if (event.key === "Escape") setAdding(undefined);
          }}
        />
      ) : (
        <select
          aria-label={`Narrow ${hole.name}`}
          value=""
          onChange={(event) => setAdding(LIMITS.find(({ name }) => name === event.target.value))}
        >
          <option value="">narrow …</option>
          {LIMITS.map(({ name, says }) => (
            <option key={name} value={name}>
              {says} …
            </option>
          ))}
        </select>
      )}
    </span>
  );
}

/** A limit as it is written in the rule file. */
function sourceOf(limit: string, typed: string, rule: RuleParts | undefined): string {
  if (limit === "text") return /^\/.*\/[a-z]*$/.test(typed) ? typed : JSON.stringify(typed);
  if (limit === "node") return JSON.stringify(typed);
  return `${rule?.language ?? "javascript"}\`${typed.replace(/`/g, "\\`")}\``;
}

interface OffersProps {
  readonly hole: HoleParts;
  readonly rule: RuleParts | undefined;
  readonly result: RunResult | undefined;
  readonly offersFor: HoleCalls["offersFor"];
  readonly onAsk: HoleCalls["onAsk"];
  readonly onDoNotAsk: HoleCalls["onDoNotAsk"];
}

/** The conditions that can be asked about a hole, with what each answers at every place in the samples. */
function Offers({ hole, rule, result, offersFor, onAsk, onDoNotAsk }: OffersProps) {
  const [offers, setOffers] = useState<readonly Offer[]>();
  useEffect(() => {
    let isHere = true;
    offersFor(hole.name).then(
      (found) => isHere && setOffers(found),
      () => isHere && setOffers([]),
    );
    return () => {
      isHere = false;
    };
  }, [hole, result, offersFor]);
  if (!offers) return <p className="hint">Asking …</p>;
  if (offers.length === 0)
    return <p className="hint">The old code fits nowhere in the samples, so that nothing can be asked.</p>;
  return (
    <table className="offers">
      <caption className="unseen">Conditions about {hole.name}</caption>
      <tbody>
        {offers.map((offer) => {
          const isAsked = rule?.given.includes(offer.source) ?? false;
          return (
            <tr key={offer.source}>
              <td>
                <label>
                  <input
                    type="checkbox"
                    checked={isAsked}
                    onChange={() => (isAsked ? onDoNotAsk(offer.source) : onAsk(offer))}
                  />{" "}
                  <code>{offer.source}</code>
                </label>
              </td>
              <td>
                <Answers answers={offer.answers} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Answers({ answers }: { readonly answers: Offer["answers"] }) {
  const kinds = (["yes", "unknown", "no"] as const).filter((is) => answers.some((one) => one.is === is));
  return (
    <>
      {kinds.map((kind) => {
        const of = answers.filter(({ is }) => is === kind);
        const [first] = of;
        return (
          <p key={kind} className={`answer ${kind}`}>
            <span className="sign">{SIGNS[kind]}</span> {plural(of.length, "place")}:{" "}
            <Words text={first!.says} />{" "}
            <span className="quiet">
              {first!.path}:{first!.at}
            </span>
          </p>
        );
      })}
    </>
  );
}

const shortened = (text: string): string => {
  const line = text.replace(/\s+/g, " ").trim();
  return line.length > 28 ? `${line.slice(0, 27)}…` : line;
};
