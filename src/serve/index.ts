/** The server behind the review page: on loopback only, for who has the address. */
export { serveReview, type ReviewServer, type Serving } from "./server.js";
export { openBrowser } from "./browser.js";
