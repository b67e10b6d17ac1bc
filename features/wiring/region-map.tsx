"use client";
import { BOARD_REGIONS, regionOfBoard } from "../../core/sheet";
import { Button } from "../../ui/button";
import type { Scene } from "./scene";

/** The whole board, small, while the plan is zoomed in: a press shows that region. Counts are of ports that hold a plug or want one. */
export function RegionMap({
  scene,
  filled,
  now,
  onRegion,
}: {
  scene: Scene;
  filled: ReadonlySet<string>;
  now: string;
  onRegion: (name: string) => void;
}) {
  return (
    <fieldset className="absolute right-2 bottom-2 z-10 border border-rule bg-raised p-1">
      <legend className="sr-only">Region of the board</legend>
      <p className="px-1 text-second">Ports filled</p>
      <div className="grid grid-cols-3 gap-0.5">
        {BOARD_REGIONS.map(({ name }) => {
          const ports = scene.ports.filter((p) => regionOfBoard(p, scene) === name);
          const held = ports.filter((p) => filled.has(p.address)).length;
          return (
            <Button
              key={name}
              aria-label={`${name}: ${held} of ${ports.length} ports hold a plug`}
              aria-pressed={now === name}
              className="min-h-9 min-w-11 px-0 text-second tabular-nums"
              onClick={() => onRegion(name)}
            >
              {ports.length === 0 ? "–" : `${held}/${ports.length}`}
            </Button>
          );
        })}
      </div>
    </fieldset>
  );
}
