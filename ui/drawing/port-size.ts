/** How a port is drawn: its outline unturned in mm (10 by 6 where nothing is said), whether it lies flat however it is turned. */
export interface PortShape {
  drawnMm?: readonly [number, number] | undefined;
  lies?: boolean | undefined;
  /** Big enough to find one's way by: drawn with a thin edge, named inside or beside. */
  landmark?: boolean | undefined;
}

/** Outline of a port on a board in mm, as the board turns it. */
export function portSizeMm({ drawnMm: [w, h] = [10, 6], lies }: PortShape, turned: number): readonly [number, number] {
  return turned % 180 === 90 && !lies ? [h, w] : [w, h];
}
