/** The forms that a report can have. */
export const FORMATS = ["text", "markdown", "html", "sarif", "junit", "csv", "json", "diff"] as const;
export type Format = (typeof FORMATS)[number];

/** What stands above the numbers of a report. */
export interface Heading {
  readonly title: string;
  /** The product that is moved, from where to where. */
  readonly journey: readonly string[];
  /** What has become more or less since an earlier survey. */
  readonly compared: readonly string[];
}
