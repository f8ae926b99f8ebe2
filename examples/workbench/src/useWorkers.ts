import { useEffect, useRef, useState } from "react";
import { proxy, wrap, type Remote } from "comlink";
import type { Loading } from "../../common/grammars.js";
import type { Bench } from "./engine/worker";
import type { Typing } from "./typing/worker";

/** The threads beside the one that draws the page. */
export interface Workers {
  readonly engine: () => Remote<Bench>;
  readonly typing: Remote<Typing>;
  /** Ends the engine in the middle of what it does, and starts another one. */
  readonly restart: () => void;
}

function startEngine(tell: (loading: Loading) => void): { worker: Worker; remote: Remote<Bench> } {
  const worker = new Worker(new URL("./engine/worker.ts", import.meta.url), { type: "module" });
  const remote = wrap<Bench>(worker);
  void remote.start(proxy(tell));
  return { worker, remote };
}

/** Starts both threads once, and tells which grammar is on its way. */
export function useWorkers(): { readonly workers: Workers | undefined; readonly loading: Loading } {
  const [loading, setLoading] = useState<Loading>();
  const [workers, setWorkers] = useState<Workers>();
  const engine = useRef<ReturnType<typeof startEngine>>(undefined);
  useEffect(() => {
    engine.current = startEngine(setLoading);
    const compiler = new Worker(new URL("./typing/worker.ts", import.meta.url), { type: "module" });
    setWorkers({
      engine: () => engine.current!.remote,
      typing: wrap<Typing>(compiler),
      restart() {
        engine.current!.worker.terminate();
        engine.current = startEngine(setLoading);
      },
    });
    return () => {
      engine.current?.worker.terminate();
      compiler.terminate();
    };
  }, []);
  return { workers, loading };
}
