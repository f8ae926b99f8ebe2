import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { fits, similar, standsAs, type Decision, type Said, type Standing } from "uvran/core";
import { ChangeSheet } from "./ChangeSheet.js";
import { Help, RuleReference, Similar } from "./Dialogs.js";
import { Filters } from "./Filters.js";
import { firstLineOf, itemOf, itemOfPlace } from "./items.js";
import { List } from "./List.js";
import { Notices } from "./Notices.js";
import {
  changesIn,
  placesIn,
  viewOf,
  WORDS,
  type Advice,
  type HeldBack,
  type Tab,
  type View,
} from "./model.js";
import { PlaceSheet } from "./PlaceSheet.js";
import { Progress } from "./Progress.js";
import type { OpenDesk } from "./useDesk.js";
import { useHash } from "./useHash.js";
import { useKeys } from "./useKeys.js";
import { useMedia } from "./useMedia.js";

const BESIDE_FROM = 1000;
/** As in the style sheet: from here on the list is only shown when it is asked for. */
const NARROW = "(max-width: 760px)";
const TABS: readonly Tab[] = ["changes", "held", "advice"];
type Open = "help" | "rule" | "similar" | "edit";

interface Props {
  readonly open: OpenDesk;
  readonly canPropose: boolean;
  readonly onSave: (() => void) | undefined;
}

/** The whole page of a review that is open. */
export function Review({ open, canPropose, onSave }: Props) {
  const { desk, standings, outdated, decide } = open;
  const { plan } = desk;
  const [hash, change] = useHash();
  const view = useMemo(() => viewOf(new URLSearchParams(hash)), [hash]);
  const [shown, setShown] = useState<Open>();
  const [note, setNote] = useState("");
  const [said, setSaid] = useState("");
  const [isBeside, setBeside] = useState(innerWidth >= BESIDE_FROM);
  const isNarrow = useMedia(NARROW);
  const [isListOpen, setListOpen] = useState(false);
  const search = useRef<HTMLInputElement>(null);
  const noteField = useRef<HTMLInputElement>(null);
  /** What stood before each thing that was said here, the last at the end. */
  const before = useRef<Said[][]>([]);

  const changes = useMemo(() => changesIn(plan, standings, view), [plan, standings, view]);
  const places = useMemo(
    () => placesIn<HeldBack | Advice>(view.tab === "advice" ? plan.advice : plan.heldBack, standings, view),
    [plan, standings, view],
  );
  const entries: readonly { readonly id: string }[] = view.tab === "changes" ? changes : places;
  const isOpen = (id: string): boolean => ["open", "again"].includes(standsAs(standings.of(id)));
  const current = plan.changes.find(({ id }) => id === view.at);
  const currentPlace = [...plan.heldBack, ...plan.advice].find(({ id }) => id === view.at);
  const at = view.tab === "changes" ? current : currentPlace;
  /** All that are meant, whatever is shown of them now. */
  const meant = useMemo(() => plan.changes.filter((one) => fits(one, view.filter)), [plan, view.filter]);
  const alike = useMemo(
    () => (current ? similar(meant, standings, current) : []),
    [meant, standings, current],
  );
  const standing: Standing = at ? standings.of(at.id) : {};

  const go = useCallback(
    (id: string | undefined): void => {
      setShown(undefined);
      setNote("");
      change({ at: id });
    },
    [change],
  );
  // There is always something in front, as long as there is anything.
  useEffect(() => {
    if (at || entries.length === 0) return;
    change({ at: (entries.find(({ id }) => isOpen(id)) ?? entries[0])!.id });
  });

  const index = entries.findIndex(({ id }) => id === at?.id);
  const step = (by: number): void => go(entries[Math.min(Math.max(index + by, 0), entries.length - 1)]?.id);
  /** The next after the current one that is open, from the start again at the end. */
  const nextOpen = (without: ReadonlySet<string> = new Set()): string | undefined => {
    const order = [...entries.slice(index + 1), ...entries.slice(0, Math.max(index, 0))];
    return order.find(({ id }) => isOpen(id) && !without.has(id))?.id;
  };

  const sayAll = async (all: readonly Said[], words: string, goesOn = true): Promise<void> => {
    const ids = new Set(all.map(({ id }) => id));
    const next = nextOpen(ids);
    const old = all.map(({ id }): Said => backTo(id, standings.of(id)));
    if (!(await decide(all))) return;
    before.current.push(old);
    setSaid(words);
    setNote("");
    setShown(undefined);
    if (goesOn) go(next ?? at?.id);
  };
  const say = (decision: Decision["decision"], edited?: string): Promise<void> => {
    if (!at) return Promise.resolve();
    const text = edited ?? (decision === "keep" ? standing.edited : undefined);
    const one: Said = {
      id: at.id,
      decision,
      saw: seen(standing),
      ...(note || standing.note ? { note: note || standing.note } : {}),
      ...(text === undefined ? {} : { edited: text }),
    };
    return sayAll([one], `${WORDS[decision]}: ${at.path}, line ${at.line}.`, edited === undefined);
  };
  const sayOfAlike = (decision: "keep" | "drop" | "later"): void => {
    if (!current) return;
    const all = [current, ...alike].map(({ id }): Said => ({
      id,
      decision,
      saw: seen(standings.of(id)),
      ...(note ? { note } : {}),
    }));
    void sayAll(all, `${WORDS[decision]}: ${all.length} changes that are alike.`);
  };
  const takeBack = async (): Promise<void> => {
    const last = before.current.pop();
    if (!last) return setSaid("Nothing was decided on this page yet.");
    if (await decide(last)) {
      setSaid(last.length === 1 ? "Taken back." : `${last.length} decisions taken back.`);
      go(last[0]!.id);
    }
  };
  const forget = (): void => {
    if (at && standing.decision !== undefined) void sayAll([{ id: at.id }], "Open again.", false);
  };
  const turnTab = (tab: Tab): void => {
    setShown(undefined);
    change({ tab: tab === "changes" ? undefined : tab, at: undefined, shown: undefined });
  };

  const ofChanges: Readonly<Record<string, () => void>> = {
    k: () => void say("keep"),
    d: () => void say("drop"),
    l: () => void say("later"),
    e: () => current && current.edits.length > 0 && setShown("edit"),
    s: () => (alike.length > 0 ? setShown("similar") : setSaid("No other open change is like this one.")),
    r: () => setShown("rule"),
    v: () => setBeside(!isBeside),
  };
  const ofPlaces: Readonly<Record<string, () => void>> = {
    h: () => void say("done"),
    a: () => void say("leave"),
    r: () => setShown("rule"),
  };
  const keys: Readonly<Record<string, () => void>> = {
    ...(view.tab === "changes" ? ofChanges : ofPlaces),
    u: () => void takeBack(),
    x: forget,
    n: () => noteField.current?.focus(),
    j: () => step(1),
    ArrowDown: () => step(1),
    i: () => step(-1),
    ArrowUp: () => step(-1),
    o: () => go(nextOpen() ?? at?.id),
    t: () => turnTab(TABS[(TABS.indexOf(view.tab) + 1) % TABS.length]!),
    "/": () => {
      // Drawn at once where it was not: what is typed next is searched for, and no key of the page.
      flushSync(() => setListOpen(true));
      search.current?.focus();
    },
    p: () => canPropose && void open.propose(),
    "?": () => setShown("help"),
  };
  useKeys((key) => {
    if (shown === "edit" || !Object.hasOwn(keys, key)) return false;
    keys[key]!();
    return true;
  });

  const items = useMemo(
    () =>
      view.tab === "changes"
        ? changes.map((one) => itemOf(one, standings.of(one.id), view, firstLineOf(desk.texts, one)))
        : places.map((one) => itemOfPlace(one, standings.of(one.id))),
    [changes, places, standings, view],
  );
  const rules =
    current && view.tab === "changes" ? current.rules : currentPlace ? currentPlace.rule.split(" + ") : [];

  return (
    <>
      <header className="bar">
        <h1>{desk.project}</h1>
        <Progress
          changes={view.tab === "changes" ? changes : plan.changes}
          standings={standings}
          current={at?.id}
          onChoose={go}
        />
        {onSave && (
          <button type="button" onClick={onSave}>
            Save decisions
          </button>
        )}
        <button type="button" onClick={() => setShown("help")}>
          Keys <kbd>?</kbd>
        </button>
      </header>
      <Notices open={open} canPropose={canPropose} outdated={outdated} />
      <nav className="side" aria-label="What there is to review">
        <div className="tabs">
          <Tabs view={view} plan={plan} onTurn={turnTab} />
          {isNarrow && (
            <button type="button" aria-expanded={isListOpen} onClick={() => setListOpen(!isListOpen)}>
              List
            </button>
          )}
        </div>
        {(!isNarrow || isListOpen) && (
          <>
            <Filters plan={plan} view={view} search={search} change={change} />
            <List
              label={LABELS[view.tab]}
              items={items}
              current={at?.id}
              onChoose={go}
              empty={
                <p>
                  Nothing here.{" "}
                  {view.tab === "changes" && plan.changes.length > 0 ? "Change the filter to see more." : ""}
                </p>
              }
            />
          </>
        )}
      </nav>
      <main className="front" tabIndex={-1}>
        {view.tab === "changes" && current && (
          <ChangeSheet
            key={current.id}
            change={current}
            standing={standing}
            desk={desk}
            source={open.source}
            isBeside={isBeside}
            alike={alike.length}
            isEditing={shown === "edit"}
            onEdited={(text) => (text === undefined ? setShown(undefined) : void say("keep", text))}
            onSimilar={() => setShown("similar")}
          />
        )}
        {view.tab !== "changes" && currentPlace && (
          <PlaceSheet key={currentPlace.id} place={currentPlace} standing={standing} desk={desk} />
        )}
        {!at && <p className="quiet">There is nothing to look at.</p>}
      </main>
      <footer className="verdicts">
        {view.tab === "changes" ? (
          <div className="buttons" role="group" aria-label="Decide">
            <Verdict k="K" kind="keep" isOn={standing.decision === "keep"} onPress={keys["k"]!} says="Keep" />
            <Verdict k="D" kind="drop" isOn={standing.decision === "drop"} onPress={keys["d"]!} says="Drop" />
            <Verdict
              k="L"
              kind="later"
              isOn={standing.decision === "later"}
              onPress={keys["l"]!}
              says="Later"
            />
            <Verdict
              k="E"
              kind="edit"
              isOn={standing.edited !== undefined}
              onPress={keys["e"]!}
              says="Edit"
            />
          </div>
        ) : (
          <div className="buttons" role="group" aria-label="Decide">
            <Verdict
              k="H"
              kind="keep"
              isOn={standing.decision === "done"}
              onPress={keys["h"]!}
              says="Done by hand"
            />
            <Verdict
              k="A"
              kind="drop"
              isOn={standing.decision === "leave"}
              onPress={keys["a"]!}
              says="Leave as it is"
            />
          </div>
        )}
        <label className="note-field">
          <span>Note</span>
          <input
            ref={noteField}
            value={note}
            maxLength={10_000}
            placeholder={standing.note ?? "goes with the next decision (N)"}
            onChange={(event) => setNote(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === "Escape") setNote("");
              if (event.key === "Enter" && standing.decision !== undefined && note !== "")
                void say(standing.decision);
              if (event.key === "Escape" || event.key === "Enter") event.currentTarget.blur();
            }}
          />
        </label>
        <button type="button" className="back" onClick={keys["u"]}>
          Take back <kbd>U</kbd>
        </button>
        <p className="said-last" role="status" aria-live="polite">
          {said}
        </p>
      </footer>
      {shown === "help" && <Help onClose={() => setShown(undefined)} />}
      {shown === "rule" && <RuleReference ids={rules} desk={desk} onClose={() => setShown(undefined)} />}
      {shown === "similar" && current && (
        <Similar
          change={current}
          others={alike}
          desk={desk}
          onDecide={sayOfAlike}
          onClose={() => setShown(undefined)}
        />
      )}
    </>
  );
}

const LABELS: Readonly<Record<Tab, string>> = { changes: "Changes", held: "Held back", advice: "Advice" };

function Tabs({
  view,
  plan,
  onTurn,
}: {
  view: View;
  plan: { changes: unknown[]; heldBack: unknown[]; advice: unknown[] };
  onTurn: (tab: Tab) => void;
}) {
  const counts = { changes: plan.changes.length, held: plan.heldBack.length, advice: plan.advice.length };
  return TABS.map((tab) => (
    <button key={tab} type="button" aria-pressed={view.tab === tab} onClick={() => onTurn(tab)}>
      {LABELS[tab]} <span className="count">{counts[tab]}</span>
    </button>
  ));
}

interface VerdictProps {
  readonly k: string;
  readonly kind: string;
  readonly says: string;
  readonly isOn: boolean;
  readonly onPress: () => void;
}

function Verdict({ k, kind, says, isOn, onPress }: VerdictProps) {
  return (
    <button type="button" className={kind} aria-pressed={isOn} onClick={onPress}>
      {says} <kbd>{k}</kbd>
    </button>
  );
}

/** What stands here, so that what somebody else said meanwhile is not written over. */
function seen({ decision, misfit }: Standing): Said["saw"] {
  return misfit === undefined ? (decision ?? "none") : undefined;
}

/** What has to be said to have a decision again as it was. */
function backTo(id: string, { decision, note, edited }: Standing): Said {
  return {
    id,
    ...(decision === undefined ? {} : { decision }),
    ...(note === undefined ? {} : { note }),
    ...(edited === undefined ? {} : { edited }),
  };
}
