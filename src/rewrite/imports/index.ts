/** Imports as requirements: what a file needs in, what it needs no more out, in the file's own way. */
export { importMoved } from "./moved.js";
export { nameFor, type Named, type NamedOptions } from "./name.js";
export { mayLeaveUnused, namedInText, stayingImports } from "./still-named.js";
export { tidyImports } from "./tidy.js";
