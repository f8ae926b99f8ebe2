/** How much of what old and new code share is left open, from little to all of it. */
export const WIDTHS = ["tight", "middle", "wide"] as const;
export type Width = (typeof WIDTHS)[number];
