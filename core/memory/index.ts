export { clockMhz, type MemorySpeed, memorySpeed } from "./speed";
