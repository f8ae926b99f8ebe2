/** How many minutes a place takes, by what has to be done there. */
export interface EffortMinutes {
  readonly automatic: number;
  readonly review: number;
  readonly hand: number;
}

/** What is reckoned with where the config says nothing: a glance, a look, a piece of work. */
export const USUAL_EFFORT: EffortMinutes = { automatic: 0.2, review: 3, hand: 20 };

/** Reckons hours from numbers of places: minutes for each, added up. */
export class Effort {
  readonly minutes: EffortMinutes;

  constructor(set: Partial<EffortMinutes> = {}) {
    this.minutes = { ...USUAL_EFFORT, ...set };
  }

  /** In hours, with one digit behind the point. */
  hours({ automatic, review, hand }: EffortMinutes): number {
    const { minutes } = this;
    const all = automatic * minutes.automatic + review * minutes.review + hand * minutes.hand;
    return Math.round(all / 6) / 10;
  }
}
