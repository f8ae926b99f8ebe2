import { join } from "node:path";
import { decisionsFile } from "../node/index.js";
import type { Decision, Said } from "../plan/index.js";
import type { Review, Workspace } from "../workspace/index.js";
import type { Pages } from "./pages.js";
import { watchFiles } from "./watch.js";

/** The review that is served, and what its pages are told. */
export class Served {
  readonly #unwatch: () => void;
  #outdated: readonly string[];

  constructor(
    readonly workspace: Workspace,
    public review: Review,
    readonly pages: Pages,
  ) {
    this.#outdated = review.outdated();
    const decisions = decisionsFile(workspace.root);
    const files = (): string[] => [
      decisions,
      ...Object.keys(this.review.plan.files).map((path) => join(workspace.root, path)),
    ];
    this.#unwatch = watchFiles(files, (changed) => {
      if (changed.includes(decisions)) pages.tell({ news: "decisions" });
      if (changed.length === 1 && changed[0] === decisions) return;
      this.#outdated = this.review.outdated();
      pages.tell({ news: "files", outdated: this.#outdated });
    });
  }

  whole(): object {
    return { desk: this.review.desk(), outdated: this.#outdated };
  }

  async decide(said: readonly Said[], page: string): Promise<Decision[]> {
    const decisions = await this.review.decide(said);
    this.pages.tell({ news: "decisions", by: page });
    const ids = new Set(said.map(({ id }) => id));
    return decisions.filter(({ id }) => ids.has(id));
  }

  /** Works the plan out again, as it was asked for, for the files as they are. */
  async propose(): Promise<object> {
    this.review = await this.workspace.proposeAgain(this.review.plan);
    this.#outdated = [];
    this.pages.tell({ news: "plan" });
    return this.whole();
  }

  close(): void {
    this.#unwatch();
  }
}
