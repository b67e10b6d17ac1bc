export { type OrderItem, orderList } from "./order-list";
export { type ListRow, MOST_ROWS, matchRows, partIds, pastedLine, proposeMounts, type ReadList } from "./read-list";
