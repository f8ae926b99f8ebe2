/** Imports as requirements: what a file needs in, what it needs no more out, in the file's own way. */
export { nameFor, type Named } from "./name.js";
export { stayingImports } from "./still-named.js";
export { tidyImports } from "./tidy.js";
