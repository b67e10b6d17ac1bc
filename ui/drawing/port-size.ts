/** Outline of a port on a board in mm, as it lies unturned: the housing, to scale. */
const SIZE: Record<string, [number, number]> = {
  "atx-24": [52, 10],
  "cpu-8": [18, 10],
  "cpu-4": [10, 10],
  "gfx-8": [18, 10],
  "gfx-6": [14, 10],
  "gfx-16": [20, 9],
  "sata-power": [24, 7],
  "peripheral-4": [21, 8],
  "fan-4": [10.5, 6.5],
  "fan-3": [8, 6.5],
  "panel-block": [13, 6],
  "hd-audio": [13, 6],
  usb2: [13, 6],
  "usb3-20": [30, 8],
  "usbc-20": [14, 8],
  "light-5v": [10.5, 4.5],
  "light-12v": [10.5, 4.5],
  "light-maker": [8, 4.5],
  "sata-data": [8, 16],
  m2: [82, 22],
  "cpu-socket": [46, 46],
  "memory-slot": [6, 133],
  "pcie-slot": [89, 8],
};

export function portSizeMm(family: string, turned: number): [number, number] {
  const [w, h] = SIZE[family] ?? [10, 6];
  return turned % 180 === 90 && family !== "sata-data" ? [h, w] : [w, h];
}
