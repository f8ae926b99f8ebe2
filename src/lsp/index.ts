/** The language server: what the rules find in open files, with changes as code actions. */
export { serveEditor } from "./server.js";
