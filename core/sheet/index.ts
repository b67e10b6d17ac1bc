export { connectionsCsv, readConnections, type WantedConnection } from "./connections";
export { boardDrawing, type Drawing, LOOM_DASH, svgOf } from "./drawing";
export { BOARD_REGIONS, boardRegion, regionOfBoard, type Sheet, type SheetRow, sheetOf } from "./rows";
