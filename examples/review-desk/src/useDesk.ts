import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { standingsOf, withSaid, type Decision, type Desk, type Said, type Standings } from "uvran/core";
import { Refused, type Source } from "./source.js";

/** A review that is open on the page. */
export interface OpenDesk {
  readonly desk: Desk;
  readonly decisions: readonly Decision[];
  readonly standings: Standings;
  /** Files that have changed since the plan was made. */
  readonly outdated: readonly string[];
  readonly isGone: boolean;
  /** Something that went wrong, for the reader. */
  readonly trouble: string | undefined;
  readonly isBusy: boolean;
  decide(said: readonly Said[]): Promise<boolean>;
  propose(): Promise<void>;
  readonly source: Source;
  dismiss(): void;
}

interface State {
  readonly desk: Desk;
  readonly decisions: readonly Decision[];
  readonly outdated: readonly string[];
}

const NO_STANDINGS: Standings = { of: () => ({}), strays: [], carried: new Map() };

/** Loads a review and keeps it up with what happens elsewhere; undefined until it is there. */
export function useDesk(
  source: Source,
): OpenDesk | { readonly trouble: string | undefined; readonly desk?: undefined } {
  const [state, setState] = useState<State>();
  const [trouble, setTrouble] = useState<string>();
  const [isGone, setGone] = useState(false);
  const [isBusy, setBusy] = useState(false);

  const load = useCallback(async (loading: Promise<{ desk: Desk; outdated: readonly string[] }>) => {
    const { desk, outdated } = await loading;
    setState({ desk, outdated, decisions: desk.decisions });
  }, []);
  const say = useCallback(
    (error: unknown) => setTrouble(error instanceof Error ? error.message : String(error)),
    [],
  );

  useEffect(() => {
    load(source.load()).catch(say);
    const refresh = async (): Promise<void> => {
      const decisions = await source.decisions();
      setState((now) => now && { ...now, decisions });
    };
    return source.listen((news) => {
      if (news.news === "decisions") refresh().catch(say);
      else if (news.news === "files") setState((now) => now && { ...now, outdated: news.outdated });
      else if (news.news === "plan") load(source.load()).catch(say);
      else setGone(true);
    });
  }, [source, load, say]);

  const standings = useMemo(() => {
    if (!state) return NO_STANDINGS;
    const { desk, decisions } = state;
    const textOf = (path: string): string | undefined => desk.texts[path];
    return standingsOf(desk.plan, decisions, { textOf, isThere: (path) => !desk.gone.includes(path) });
  }, [state?.desk, state?.decisions]);
  const known = useRef(standings);
  known.current = standings;

  const decide = useCallback(
    async (said: readonly Said[]): Promise<boolean> => {
      try {
        const added = await source.decide(said);
        setState((now) => now && { ...now, decisions: withSaid(now.decisions, known.current, said, added) });
        setTrouble(undefined);
        return true;
      } catch (error) {
        say(error);
        if (error instanceof Refused && error.status === 409) {
          const decisions = await source.decisions();
          setState((now) => now && { ...now, decisions });
        }
        return false;
      }
    },
    [source, say],
  );
  const propose = useCallback(async () => {
    setBusy(true);
    try {
      await load(source.propose());
      setTrouble(undefined);
    } catch (error) {
      say(error);
    } finally {
      setBusy(false);
    }
  }, [source, load, say]);

  if (!state) return { trouble };
  return {
    ...state,
    standings,
    isGone,
    trouble,
    isBusy,
    decide,
    propose,
    source,
    dismiss: () => setTrouble(undefined),
  };
}
