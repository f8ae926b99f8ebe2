/** A page of `docs/` in the handbook. */
export interface Guide {
  /** The file's name, without its ending. */
  readonly name: string;
  readonly title: string;
  readonly group: "The job" | "Rules of your own" | "Large and many" | "To look things up";
}

/** The guides, in the order in which somebody needs them. */
export const GUIDES: readonly Guide[] = [
  { name: "how-sure", title: "How sure a change is", group: "The job" },
  { name: "surveys", title: "Take stock", group: "The job" },
  { name: "moving-versions", title: "Move to a newer version", group: "The job" },
  { name: "es-modules", title: "Move to ES modules", group: "The job" },
  { name: "review", title: "Review a plan", group: "The job" },
  { name: "proving", title: "Prove it", group: "The job" },
  { name: "editor", title: "In the editor", group: "The job" },
  { name: "drafting", title: "Draft a rule from an edit", group: "Rules of your own" },
  { name: "workbench", title: "The workbench", group: "Rules of your own" },
  { name: "writing-rules", title: "Write a rule", group: "Rules of your own" },
  { name: "cookbook", title: "Cookbook", group: "Rules of your own" },
  { name: "when-it-does-not-match", title: "When it does not match", group: "Rules of your own" },
  { name: "models", title: "Data models in Python", group: "Rules of your own" },
  { name: "large-codebases", title: "Large codebases", group: "Large and many" },
  { name: "fleets", title: "Many repositories", group: "Large and many" },
  { name: "coverage", title: "What is covered", group: "To look things up" },
  { name: "holes", title: "Where holes can stand", group: "To look things up" },
  { name: "knowledge", title: "What analysis knows", group: "To look things up" },
  { name: "codes", title: "Codes of evidence", group: "To look things up" },
  { name: "api", title: "All names", group: "To look things up" },
];
