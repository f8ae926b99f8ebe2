import { describe, heaviest, moistureOf, noteOf, starsOf, villageOf, visitsOf } from "./lots.js";
import { OrderBook } from "./orders.js";
import { remarkOf } from "./archive.js";
import * as labels from "./labels.js";
import type { Keeper, Lot, Order } from "./model.js";

declare const console: { log(line: string): void };

const ada: Keeper = { name: "Ada Fennel", village: " Upper Thistledown ", phone: "12", visits: 4 };
const bo: Keeper = { name: "Bo Sorrel", village: "", visits: 0 };
const lots: Lot[] = [
  { code: "H1", flower: "heather", kilograms: 120.5, keeper: ada, moisture: 0, tasted: { by: bo, stars: 0 } },
  { code: "L2", flower: "linden", kilograms: 40, keeper: bo, moisture: null, note: "" },
  { code: "R3", flower: "rape", kilograms: 8, moisture: 19 },
];
const orders: Order[] = [
  { number: 1, customer: "The Teapot", lots, deliverTo: ada, discount: 5 },
  { number: 2, customer: "The Scone", lots: lots.slice(2), jars: 0 },
  { number: 3, customer: "" },
];

for (const lot of [...lots, undefined]) console.log(describe(lot));
for (const lot of lots) {
  console.log([lot.code, moistureOf(lot), starsOf(lot), noteOf(lot), villageOf(lot)].join(" / "));
  console.log(labels.label(lot, lot.kilograms > 100 ? undefined : 20));
}
for (const keeper of [ada, bo, undefined]) console.log(`${visitsOf(keeper)} ${labels.phone(keeper)}`);
const best = heaviest(lots);
console.log(best ? best.code : "none");

const book = new OrderBook(orders, { onTotal: (total) => console.log(`  total ${total}`) });
console.log(book.open(new Date(86400000)).toISOString());
console.log(book.open(undefined).toISOString());
for (const order of book.all()) {
  console.log(`${order.number} ${book.recipient(order)} ${book.total(order)} ${book.jars(order)} ${book.van(order)}`);
}
console.log(book.recipient(null));
console.log(remarkOf('{ "remark": "" }'));
