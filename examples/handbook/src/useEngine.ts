import { createContext, useContext, useEffect, useState } from "react";
import { proxy, wrap, type Remote } from "comlink";
import type { Loading } from "../../common/grammars.js";
import type { HandbookEngine } from "./engine/worker";

/** Code that makes the engine run longer than this is given up. */
const MOST_SECONDS = 10;

/** The engine's thread, started when it is first asked for, and begun anew when it does not come to an end. */
export class EngineThread {
  #worker: Worker | undefined;
  #remote: Remote<HandbookEngine> | undefined;
  tell: (loading: Loading) => void = () => {};

  async run(...asked: Parameters<HandbookEngine["run"]>): ReturnType<HandbookEngine["run"]> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<never>((_, refuse) => {
      timer = setTimeout(() => {
        this.end();
        refuse(new Error(`It did not come to an end in ${MOST_SECONDS} seconds and was stopped.`));
      }, MOST_SECONDS * 1000);
    });
    try {
      return await Promise.race([this.#started().run(...asked), late]);
    } finally {
      clearTimeout(timer);
    }
  }

  end(): void {
    this.#worker?.terminate();
    this.#worker = this.#remote = undefined;
  }

  #started(): Remote<HandbookEngine> {
    if (!this.#remote) {
      this.#worker = new Worker(new URL("./engine/worker.ts", import.meta.url), { type: "module" });
      this.#remote = wrap<HandbookEngine>(this.#worker);
      void this.#remote.start(proxy((loading) => this.tell(loading)));
    }
    return this.#remote;
  }
}

export const EngineContext = createContext(new EngineThread());
export const useEngine = (): EngineThread => useContext(EngineContext);

/** Which grammar is on its way. */
export function useLoading(): Loading {
  const engine = useEngine();
  const [loading, setLoading] = useState<Loading>();
  useEffect(() => {
    engine.tell = setLoading;
    return () => {
      engine.tell = () => {};
    };
  }, [engine]);
  return loading;
}
