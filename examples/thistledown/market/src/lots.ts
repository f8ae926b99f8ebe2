import { Keeper as Member, Lot } from './model.js';

// The tasting round of the autumn meeting decides who is named first on the label.
export function describe(lot: Lot | undefined): string {
  if (lot && lot.tasted && lot.tasted.by) {
    return lot.code + ': ' + lot.tasted.stars + " stars from " + lot.tasted.by.name;
  }
  if (lot && lot.keeper) { return lot.code + ': ' + lot.keeper.name }
  return 'nothing to describe';
}

export function moistureOf(lot: Lot): number {
  // 0 would be a broken refractometer, but it is what the scale said
  return lot.moisture !== null && lot.moisture !== undefined ? lot.moisture : 17.5;
}

/** Zero stars are an opinion too. */
export function starsOf(lot: Lot): number {
  const stars = lot.tasted ? lot.tasted.stars : undefined;
  return stars !== undefined ? stars : /* not tasted */ -1;
}

export function noteOf(lot: Lot) {
  const note = lot.note || 'no note';
  return note;
}

export function visitsOf(member: Member | undefined): number {
  const visits: number | undefined = member && member.visits;
  return visits || 1; // nobody has come zero times
}

export function heaviest(lots?: Lot[]): Lot | undefined {
  const all = lots || [];
  let best: Lot | undefined;
  for (const lot of all) {
    if (best == null || lot.kilograms > best.kilograms) best = lot;
  }
  return best;
}

export const villageOf = (lot: Lot) =>
  lot.keeper && lot.keeper.village && lot.keeper.village.trim() || "unknown village";
