export { corrected, type Fix, keysOf } from "./corrected";
export { type FromMail, fromMail, saidValues } from "./from-mail";
export { EXTRA_KINDS, type ExtraKind, PROMISE_KINDS, type PromiseKind } from "./language";
export * from "./mail";
export { type OrderItem, orderList } from "./order-list";
export {
  isSeated,
  type Listed,
  type ListRow,
  matchRows,
  partIds,
  pastedLine,
  proposeMounts,
  type ReadList,
  readAgainst,
  type ShelfIndex,
  shelfIndex,
} from "./read-list";
