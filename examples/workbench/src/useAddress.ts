import { useEffect, useRef } from "react";
import { fromAddress, toAddress } from "./address";
import { STARTERS } from "./starters";
import type { BenchState } from "./state";

/** What this page itself wrote into the address while it was open, so that it is known again after a reload. */
const OWN = "uvran-workbench-address";

/** Reads the state that the address holds when the page opens, and keeps it there while the page is used. */
export function useAddress(
  state: BenchState | undefined,
  /** A rule of which it is not known that this page wrote it is code of someone else. */
  onState: (state: BenchState, isForeign: boolean) => void,
  onNotice: (says: string) => void,
): void {
  const written = useRef<string>(undefined);
  const calls = useRef({ state, onState, onNotice });
  calls.current = { state, onState, onNotice };
  useEffect(() => {
    const read = async (): Promise<void> => {
      const hash = location.hash.slice(1);
      if (written.current === hash) return;
      written.current = hash;
      const found = await fromAddress(hash);
      const [first] = STARTERS;
      const { state, onState } = calls.current;
      const start: BenchState = { samples: first!.samples, rule: first!.rule, edit: undefined };
      if (found || !state)
        onState(found ?? start, found !== undefined && sessionStorage.getItem(OWN) !== hash);
      if (!found && hash !== "")
        calls.current.onNotice("The address holds no rule that can be read; it may have been cut.");
    };
    const changed = (): void => void read();
    changed();
    addEventListener("hashchange", changed);
    return () => removeEventListener("hashchange", changed);
  }, []);
  useEffect(() => {
    if (!state) return;
    const timer = setTimeout(async () => {
      const hash = (await toAddress(state)) ?? "";
      sessionStorage.setItem(OWN, hash);
      if (hash === written.current) return;
      written.current = hash;
      history.replaceState(null, "", hash === "" ? location.pathname : `#${hash}`);
    }, 400);
    return () => clearTimeout(timer);
  }, [state]);
}

/** Copies a link to the state, or says why there is none. */
export async function copyLink(
  state: BenchState | undefined,
  onNotice: (says: string) => void,
): Promise<void> {
  const hash = state && (await toAddress(state));
  if (hash === undefined)
    return onNotice(
      "Too much code for a link. Save the rule file and hand that on, or remove some of the code.",
    );
  const link = `${location.origin}${location.pathname}#${hash}`;
  history.replaceState(null, "", `#${hash}`);
  try {
    await navigator.clipboard.writeText(link);
    onNotice("The link is copied: it holds the rule and the code.");
  } catch {
    onNotice("The link is in the address of this page; copy it from there.");
  }
}
