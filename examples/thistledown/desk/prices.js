const PRICES = { heather: "7.50", clover: "6.00" };

export function priceOf(kind) {
  return PRICES[kind];
}
