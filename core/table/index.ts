export { decode, MOST_ROWS, plainCell, type Read, readCsv, type Table, tooLarge, writeCsv } from "./csv";
