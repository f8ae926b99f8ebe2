import type { Tree } from "web-tree-sitter";
import { arraysFor, NO_NODE, type NodeArrays, type NodeId } from "../node-arrays.js";
import { WALK_BYTES } from "./walk-bytes.js";

/** All nodes of a parser's tree, and those it marks as errors or as missing. */
export interface Walked {
  readonly nodes: NodeArrays;
  readonly errors: readonly NodeId[];
}

export type Walk = (tree: Tree) => Walked;

const ERROR_KIND = 0xffff;
/** The bit of a field that says that the parser made the node up. */
const MISSING = 0x8000;

/** Walks a tree with the parser's cursor, driven from here: four calls into the parser for each node. */
export const walkByCursor: Walk = (tree) => {
  const { rootNode } = tree;
  const nodes = arraysFor(rootNode.descendantCount);
  const { kindIds, starts, ends, after, parents, fieldIds } = nodes;
  const errors: NodeId[] = [];
  const mayHaveErrors = rootNode.hasError;
  const cursor = tree.walk();
  let n = 0;
  let parent = NO_NODE;
  walk: for (;;) {
    kindIds[n] = cursor.nodeTypeId;
    starts[n] = cursor.startIndex;
    ends[n] = cursor.endIndex;
    parents[n] = parent;
    fieldIds[n] = cursor.currentFieldId;
    if (mayHaveErrors && (kindIds[n] === ERROR_KIND || cursor.nodeIsMissing)) errors.push(n);
    const here = n++;
    if (cursor.gotoFirstChild()) {
      parent = here;
      continue;
    }
    after[here] = n;
    while (!cursor.gotoNextSibling()) {
      if (!cursor.gotoParent()) break walk;
      after[parent] = n;
      parent = parents[parent]!;
    }
  }
  cursor.delete();
  return { nodes, errors };
};

type Call = (...values: number[]) => number;

/** Bytes of one node in the parser's memory: four numbers of four bytes and two of two. */
const NODE_BYTES = 20;

/**
 * The walk in one call: a small module that shares the parser's memory drives the cursor there. `runtime` are the
 * exports of the parser's module. Undefined where they are not what it needs.
 */
export function walkInMemory(
  runtime: Readonly<Record<string, unknown>>,
  memory: WebAssembly.Memory,
): Walk | undefined {
  const named = (name: string): Call => runtime[name] as Call;
  const cursor = (name: string): Call => named(`ts_tree_cursor_${name}_wasm`);
  const parser = {
    memory,
    first: cursor("goto_first_child"),
    next: cursor("goto_next_sibling"),
    up: cursor("goto_parent"),
    kind: cursor("current_node_type_id"),
    start: cursor("start_index"),
    end: cursor("end_index"),
    field: cursor("current_field_id"),
    missing: cursor("current_node_is_missing"),
  };
  const root = named("ts_tree_root_node_wasm");
  const count = named("ts_node_descendant_count_wasm");
  const hasError = named("ts_node_has_error_wasm");
  const newCursor = cursor("new");
  const deleteCursor = cursor("delete");
  const malloc = named("malloc");
  const free = named("free");
  const needed = [...Object.values(parser), root, count, hasError, newCursor, deleteCursor, malloc, free];
  if (needed.includes(undefined as never)) return undefined;
  const bytes = Uint8Array.from(atob(WALK_BYTES), (letter) => letter.charCodeAt(0));
  const module = new WebAssembly.Instance(new WebAssembly.Module(bytes), { parser });
  const walk = module.exports["walk"] as Call;

  return (tree) => {
    const address = (tree as unknown as { readonly 0: number })[0];
    // Each call reads the node that the one before it has put into the transfer buffer.
    root(address);
    const size = count(address);
    root(address);
    const mayHaveErrors = hasError(address);
    root(address);
    newCursor(address);
    const at = malloc(size * NODE_BYTES);
    const long = [0, 1, 2, 3].map((i) => at + i * size * 4);
    const short = [0, 1].map((i) => at + size * 16 + i * size * 2);
    const got = walk(address, size, mayHaveErrors, ...long, ...short);
    deleteCursor(address);
    const { buffer } = memory;
    const nodes: NodeArrays = {
      size,
      starts: new Uint32Array(buffer, long[0], size).slice(),
      ends: new Uint32Array(buffer, long[1], size).slice(),
      after: new Uint32Array(buffer, long[2], size).slice(),
      parents: new Int32Array(buffer, long[3], size).slice(),
      kindIds: new Uint16Array(buffer, short[0], size).slice(),
      fieldIds: new Uint16Array(buffer, short[1], size).slice(),
    };
    free(at);
    if (got !== size) throw new Error(`the walk of a tree gave ${got} nodes instead of ${size}`);
    return { nodes, errors: mayHaveErrors ? errorsIn(nodes) : [] };
  };
}

/** The nodes that are errors or missing; takes the mark out of their fields. */
function errorsIn({ size, kindIds, fieldIds }: NodeArrays): NodeId[] {
  const errors: NodeId[] = [];
  for (let n = 0; n < size; n++) {
    const isMissing = (fieldIds[n]! & MISSING) !== 0;
    if (isMissing) fieldIds[n]! &= ~MISSING;
    if (isMissing || kindIds[n] === ERROR_KIND) errors.push(n);
  }
  return errors;
}
