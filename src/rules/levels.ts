/** Why a rule matters: it repairs what a new version breaks or deprecates, reads better, or smells. */
export const KINDS = ["breaks", "deprecated", "idiom", "smell"] as const;
/** Why a rule matters: what it finds breaks, is deprecated, has a newer idiom, or is doubtful. */
export type Kind = (typeof KINDS)[number];

/** How sure a change is. `certain` before `likely` before `possible`. */
export const TRUSTS = ["certain", "likely", "possible"] as const;
/** How sure a change is: `certain`, `likely` or `possible`. */
export type Trust = (typeof TRUSTS)[number];

/** The lower of two trusts. */
export function lower(a: Trust, b: Trust): Trust {
  return TRUSTS[Math.max(TRUSTS.indexOf(a), TRUSTS.indexOf(b))]!;
}
