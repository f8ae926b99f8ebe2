/** A member of the co-operative. */
export interface Keeper {
  name: string;
  village: string;
  phone?: string;
  visits?: number;
}

/** What came out of the extractor in one go. */
export interface Lot {
  code: string;
  flower: string;
  kilograms: number;
  keeper?: Keeper;
  moisture?: number | null;
  note?: string;
  tasted?: { by: Keeper; stars: number };
}

export interface Order {
  number: number;
  customer: string;
  lots?: Lot[];
  jars?: number;
  discount?: number;
  deliverTo?: Keeper;
}
