export { type FromMail, fromMail, saidValues } from "./from-mail";
export * from "./mail";
export { type OrderItem, orderList } from "./order-list";
export {
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
