/** A stock in, a report in one of several forms out. */
export { csvReport } from "./csv.js";
export { FORMATS, type Format, type Heading } from "./format.js";
export { htmlReport } from "./html.js";
export { jsonReport } from "./json.js";
export { junitReport } from "./junit.js";
export { markdownReport } from "./markdown.js";
export { sarifReport, type EditsOf } from "./sarif.js";
export { TemplateError, templateReport } from "./template.js";
