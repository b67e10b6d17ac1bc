/** What each paper of a job is called. */
export const PAPER_NAMES = {
  client: "For the client",
  shop: "For the shop: everything",
  delivery: "Delivery note",
  prices: "Delivery note with prices",
  parcel: "Parcel list",
} as const;
