import { classesNamed, textFound } from "../../core.js";
import { commaParts } from "../family/comma-parts.js";
import type { WrittenType } from "./written-type.js";

/** A container of the standard library, by the type that something is declared with. */
export interface Container {
  readonly name: string;
  /** The types that it is made with, as they are written: of its items, or of keys and values. */
  readonly types: readonly string[];
  /** `nodes`: its end is the same whatever comes and goes. `places`: items lie side by side. */
  readonly is: "nodes" | "places" | "queue";
  /** Is it certainly the one of the library, and no class of that name? */
  readonly isStandard: boolean;
}

const NODES = /^(?:list|forward_list|(?:unordered_)?(?:multi)?(?:set|map))$/;
const PLACES = /^(?:vector|deque|array|basic_string|w?string)$/;
const QUEUES = /^(?:queue|stack|priority_queue)$/;

/** The container that a type names; undefined for all else, and for what a container names: `std::vector<int>::size_type`. */
export function containerOf({ text, at }: WrittenType): Container | undefined {
  const [, space, name, args] = /^(?:const\s+)?(std::)?(\w+)\s*(?:<(.*)>)?$/s.exec(text) ?? [];
  if (name === undefined || (args !== undefined && !isBalanced(args))) return undefined;
  const is = NODES.test(name)
    ? "nodes"
    : PLACES.test(name)
      ? "places"
      : QUEUES.test(name)
        ? "queue"
        : undefined;
  const types = args === undefined ? [] : commaParts(args).map((one) => one.trim());
  if (is === undefined || (types.length === 0 && !/^w?string$/.test(name))) return undefined;
  const { tree } = at;
  const isBrought = (): boolean =>
    textFound(tree, new RegExp(`\\busing\\s+(?:namespace\\s+std\\b|std::${name}\\b)`)) !== undefined;
  const isStandard = space !== undefined || (isBrought() && classesNamed(tree, name).classes.length === 0);
  return { name, types, is, isStandard };
}

/** Does each bracket close what was opened in this text? */
function isBalanced(args: string): boolean {
  let depth = 0;
  for (const [sign] of args.matchAll(/[<>]/g)) if ((depth += sign === "<" ? 1 : -1) < 0) return false;
  return depth === 0;
}
