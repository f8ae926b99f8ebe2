import type { Order, Lot } from "./model.js";
import { moistureOf, heaviest as heaviestOf } from "./lots.js";
import { PRICE_PER_KILOGRAM } from "./prices.js";

interface Listener {
  onTotal(total: number): void;
}

export class OrderBook {
  private listener: Listener | undefined;
  private opened: Date | undefined;

  constructor(private readonly orders: Order[], listener?: Listener) {
    this.listener = listener;
  }

  /** Opens the book once. */
  open(day: Date | undefined): Date {
    this.opened = this.opened !== undefined ? this.opened : day;
    return this.opened !== undefined
      ? this.opened // opened before
      : new Date(0);
  }

  total(order: Order): number {
    let total = 0;
    for (const lot of order.lots || []) {
      total += lot.kilograms * priceOf(lot);
    }
    total -= order.discount || 0;
    this.listener && this.listener.onTotal(total);
    return total;
  }

  jars(order: Order): number {
    const jars = order.jars != null ? order.jars : Math.ceil(kilograms(order) / 0.5);
    return jars;
  }

  /** The heaviest lot decides which van is sent. */
  van(order: Order): string {
    const lot = heaviestOf(order.lots);
    if (lot && lot.kilograms > 100) return 'big van';
    return lot ? "small van" : "bicycle";
  }

  recipient(order: Order | null): string {
    if (order && order.deliverTo && order.deliverTo.name) {
      return order.deliverTo.name;
    }
    return (order && order.customer) || 'collected';
  }

  all(): Order[] {
    return this.orders;
  }
}

function kilograms(order: Order): number {
  return (order.lots || []).reduce((sum, lot) => sum + lot.kilograms, 0);
}

function priceOf(lot: Lot): number {
  const price = PRICE_PER_KILOGRAM.get(lot.flower);
  const base = price === undefined || price === null ? 9 : price;
  return moistureOf(lot) > 18 ? base - 1 : base;
}
