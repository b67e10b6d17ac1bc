export { type MonitorSeat, pictureFrom, seatMonitors, wirelessPart } from "./monitors";
