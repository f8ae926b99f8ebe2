import type { Check } from "./check.js";
import { argumentOrderFault } from "./argument-order.js";
import { commentFault } from "./comments.js";
import { emptyArgumentFault } from "./empty-arguments.js";
import { ownCallFault } from "./own-calls.js";
import { layoutFault } from "./layout.js";
import { toolCommentFault } from "./tool-comments.js";
import { untouchedFault } from "./untouched.js";

export type { Fault, Rewriting } from "./check.js";

/** What every rewriting is held to, beside being free of syntax errors. */
export const CHECKS: readonly Check[] = [
  commentFault,
  toolCommentFault,
  layoutFault,
  emptyArgumentFault,
  argumentOrderFault,
  untouchedFault,
  ownCallFault,
];
