import type { LanguageId, Pack } from "../core.js";

/** What a pack's module brings: its rules by their names, and the pack itself. */
interface PackModule {
  readonly default: Pack;
}

/** A pack that ships, with the languages in which its rules are written. */
interface Shipped {
  readonly languages: readonly LanguageId[];
  readonly load: () => Promise<PackModule>;
}

/** In the order in which they are listed. */
const PACKS: readonly Shipped[] = [
  { languages: ["javascript", "typescript"], load: () => import("./javascript/index.js") },
  { languages: ["python"], load: () => import("./python/index.js") },
  { languages: ["java"], load: () => import("./java/index.js") },
  { languages: ["csharp"], load: () => import("./csharp/index.js") },
  { languages: ["cpp"], load: () => import("./cpp/index.js") },
  { languages: ["php"], load: () => import("./php/index.js") },
  { languages: ["ruby"], load: () => import("./ruby/index.js") },
  { languages: ["powershell"], load: () => import("./powershell/index.js") },
];

/** The packs that ship with rules for these languages, or all; only they are loaded, which takes most of a short command's time. */
export async function shippedPacks(languages?: ReadonlySet<LanguageId>): Promise<readonly Pack[]> {
  const wanted = PACKS.filter(({ languages: own }) => !languages || own.some((id) => languages.has(id)));
  return (await loaded(wanted)).map((module) => module.default);
}

/** The packs' modules, by the names under which a config imports them. */
export async function packModules(): Promise<Readonly<Record<string, object>>> {
  const named = (await loaded(PACKS)).map(
    (module) => [`uvran/packs/${module.default.name}`, module] as const,
  );
  return { ...Object.fromEntries(named), "uvran/packs": await import("./index.js") };
}

/** One after the other: they have much in common, and not every loader of modules stands to be asked twice at once. */
async function loaded(packs: readonly Shipped[]): Promise<PackModule[]> {
  const modules: PackModule[] = [];
  for (const { load } of packs) modules.push(await load());
  return modules;
}
