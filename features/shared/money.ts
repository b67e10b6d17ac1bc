/** The shop's money as it is written: two places, the currency behind it where the shop has named one. */
export const money = (n: number, currency = ""): string =>
  `${n.toLocaleString("en", { minimumFractionDigits: 2, maximumFractionDigits: 2 })}${currency ? ` ${currency}` : ""}`;
