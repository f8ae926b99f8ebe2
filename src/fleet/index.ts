/** Many repositories worked through with the same rules, checks and policy. */
export { folderOf, runFleet, type Crew, type FleetProgress } from "./crew.js";
export { runJob, type Job } from "./job.js";
export { readList, type FleetList, type Policy, type Repository } from "./list.js";
export { fleetPage } from "./page.js";
export { runOverQueue, serveQueue } from "./queue.js";
export { pushCommand, saysOf, sumsOf } from "./said.js";
export { withoutSecrets } from "./secrets.js";
export { readState, writeWhole, type RepositoryState } from "./state.js";
