/** Number of a node in its tree: its place in document order, parents before children. */
export type NodeId = number;
export const NO_NODE: NodeId = -1;

/** The arrays of a tree; see SyntaxTree for what each holds. */
export interface NodeArrays {
  readonly size: number;
  readonly kindIds: Uint16Array;
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  readonly after: Uint32Array;
  readonly parents: Int32Array;
  /** The grammar's numbers of the fields; 0 for none. */
  readonly fieldIds: Uint16Array;
}

/** Room for so many nodes. */
export function arraysFor(size: number): NodeArrays {
  return {
    size,
    kindIds: new Uint16Array(size),
    starts: new Uint32Array(size),
    ends: new Uint32Array(size),
    after: new Uint32Array(size),
    parents: new Int32Array(size),
    fieldIds: new Uint16Array(size),
  };
}
