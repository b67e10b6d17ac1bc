export { connectionsCsv, readConnections, type WantedConnection } from "./connections";
export { BOARD_REGIONS, boardRegion, regionOfBoard, type Sheet, type SheetRow, sheetOf } from "./rows";
