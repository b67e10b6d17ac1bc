export { type OrderItem, orderList } from "./order-list";
export { type ListRow, matchRows, partIds, pastedLine, proposeMounts, type ReadList } from "./read-list";
