import type { Pin } from "./family";

export const row = (from: number, to: number, step = 1) => Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => from + i * step);
export const twoRows = (n: number) => [row(1, n - 1, 2), row(2, n, 2)];
export const halves = (n: number) => [row(1, n / 2), row(n / 2 + 1, n)];
export const pins = (list: [string, string?][]): Pin[] => list.map(([signal, wire], i) => ({ pin: i + 1, signal, ...(wire ? { wire } : {}) }));
export const many = (n: number, signal: string, wire?: string): [string, string?][] => Array.from({ length: n }, () => [signal, wire]);

export const GND: [string, string] = ["ground", "black"];
export const V12: [string, string] = ["+12 V", "yellow"];
export const V5: [string, string] = ["+5 V", "red"];
export const V33: [string, string] = ["+3.3 V", "orange"];

export const ATX = "ATX power supply design guide, Intel (from memory)";
export const FPIO = "Front Panel I/O Connectivity Design Guide, Intel (from memory)";
export const FAN = "4-Wire PWM Controlled Fans Specification rev. 1.3, Intel (from memory)";
export const CEM = "PCI Express Card Electromechanical Specification, PCI-SIG (from memory)";
export const PRACTICE = "common practice";
