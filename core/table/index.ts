export { decode, MOST_ROWS, plainCell, type Read, readCsv, type Table, writeCsv } from "./csv";
