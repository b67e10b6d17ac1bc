export { linesOf, MOST_REPORT_CHARS, type Read, type Reported, type ReportLine, readReport } from "./report";
