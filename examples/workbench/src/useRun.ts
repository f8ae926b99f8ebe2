import { useEffect, useRef, useState } from "react";
import type { RunResult, Sample } from "./engine/protocol";
import type { FileParts } from "./typing/protocol";
import type { Workers } from "./useWorkers";

/** A rule that takes longer than this on all samples is given up. */
const MOST_SECONDS = 10;
/** Typing pauses this long before anything is run. */
const PAUSE_MS = 120;

/** What the rule file says and does now. */
export interface Run {
  readonly parts: FileParts;
  readonly result: RunResult | undefined;
  /** Why the file cannot be run; what ran last stays shown. */
  readonly problem: string | undefined;
  /** Has something been typed since? */
  readonly isBehind: boolean;
}

const NOTHING: Omit<Run, "isBehind"> = {
  parts: { holes: [], rules: [] },
  result: undefined,
  problem: undefined,
};

/** Runs the rule file over the samples whenever one of them changes; what is overtaken by typing is not shown. */
export function useRun(workers: Workers | undefined, rule: string, samples: readonly Sample[]): Run {
  const wanted = useRef({ rule, samples });
  const [run, setRun] = useState<Omit<Run, "isBehind">>(NOTHING);
  const [ran, setRan] = useState<typeof wanted.current>();
  const isBusy = useRef(false);
  if (wanted.current.rule !== rule || wanted.current.samples !== samples) wanted.current = { rule, samples };
  useEffect(() => {
    if (!workers) return;
    const timer = setTimeout(() => {
      if (!isBusy.current) void work(workers);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [workers, rule, samples]);

  async function work(workers: Workers): Promise<void> {
    isBusy.current = true;
    try {
      for (let done; done !== wanted.current;) {
        const now = (done = wanted.current);
        const parts = await workers.typing.parts(now.rule);
        const translated = await workers.typing.translate(now.rule);
        if ("problem" in translated) {
          const problem = `Line ${translated.line}: ${translated.problem}`;
          setRun(({ result }) => ({ parts, result, problem }));
          continue;
        }
        const result = await inTime(workers.engine().run(translated.js, now.samples));
        if (result === "late") {
          workers.restart();
          const problem = `The rule did not come to an end in ${MOST_SECONDS} seconds and was stopped.`;
          setRun((last) => ({ parts, result: last.result, problem }));
        } else
          setRun((last) => ({
            parts,
            result: result.problem === undefined ? result : last.result,
            problem: result.problem,
          }));
      }
    } catch (error) {
      setRun((last) => ({ ...last, problem: String(error) }));
    } finally {
      isBusy.current = false;
      setRan(wanted.current);
    }
  }
  return { ...run, isBehind: ran?.rule !== rule || ran.samples !== samples };
}

function inTime<T>(promise: Promise<T>): Promise<T | "late"> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => resolve("late"), MOST_SECONDS * 1000);
    promise.then(resolve, reject).finally(() => clearTimeout(timer));
  });
}
