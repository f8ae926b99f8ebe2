import { expose } from "comlink";
import { changeLines, languageOf, textAfter, trialEngine, type Pack } from "uvran/core";
import { bringGrammars, type Loading } from "../../../common/grammars.js";
import type { Asked, Ran, Said } from "./protocol";

const PACKS = import.meta.glob<{ default: Pack }>("../../../../dist/packs/*/index.js");
/** All lines of the code are shown. */
const ALL_LINES = 10_000;

/** The engine, away from the thread that draws the page. */
const engine = {
  start(tell: (loading: Loading) => void): void {
    bringGrammars(tell);
  },

  async run({ rule: id, language, code, ...told }: Asked): Promise<Ran> {
    const load = PACKS[`../../../../dist/packs/${id.split("/")[0]!}/index.js`];
    const rule = load && (await load()).default.rules.find((one) => one.id === id);
    if (!rule) throw new Error(`There is no rule ${id}.`);
    const path = `trial${languageOf(language).extensions[0]!}`;
    const result = await trialEngine(rule, told).file(path, code);
    const { changes = [], heldBack = [], advice = [], failures = [] } = result ?? {};
    const said: Said[] = [
      ...changes.map(({ trust, line, title, evidence, cautions }) => ({
        is: trust,
        line,
        says: title,
        grounds: evidence.map(({ answer, says }) => ({ answer, says })),
        cautions: cautions.map(({ says }) => says),
      })),
      ...heldBack.map(({ line, reason }) => ({ is: "held" as const, line, says: reason, ...NOTHING })),
      ...advice.map(({ line, says, evidence }) => ({
        is: "advice" as const,
        line,
        says,
        grounds: evidence.map(({ answer, says }) => ({ answer, says })),
        cautions: [],
      })),
      ...failures.map(({ line = 1, says }) => ({ is: "failed" as const, line, says, ...NOTHING })),
    ].sort((a, b) => a.line - b.line);
    const now = await textAfter(path, code, changes);
    const whole = { start: 0, end: code.length, text: now };
    return { lines: now === code ? [] : changeLines(code, [whole], ALL_LINES), said };
  },
};

const NOTHING = { grounds: [], cautions: [] } as const;

export type HandbookEngine = typeof engine;
expose(engine);
