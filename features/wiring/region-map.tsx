"use client";
import { type Scene, seenRect } from "../../core/scene";
import { BOARD_REGIONS, regionOfBoard } from "../../core/sheet";
import { Button } from "../../ui/button";

/** The ninth of the drawing in which a part or port of it lies, as it is seen. */
export function regionOfMachine(scene: Scene, sheet: "front" | "behind", rect: Scene["view"]): string {
  const r = seenRect(scene, sheet, rect);
  return regionOfBoard({ xMm: r.xMm + r.widthMm / 2 - scene.view.xMm, yMm: r.yMm + r.heightMm / 2 - scene.view.yMm }, scene.view);
}

/** The whole machine, small, while the plan is zoomed in: a press shows that region. Counts are of ports that hold a plug or want one. */
export function RegionMap({
  scene,
  sheet,
  filled,
  now,
  onRegion,
}: {
  scene: Scene;
  sheet: "front" | "behind";
  filled: ReadonlySet<string>;
  now: string;
  onRegion: (name: string) => void;
}) {
  return (
    <fieldset className="absolute right-2 bottom-2 z-10 border border-rule bg-raised p-1">
      <legend className="sr-only">Region of the machine</legend>
      <p className="px-1 text-second">Ports filled</p>
      <div className="grid grid-cols-3 gap-0.5">
        {BOARD_REGIONS.map(({ name }) => {
          const ports = scene.ports.filter((p) => p.sheets.includes(sheet) && regionOfMachine(scene, sheet, p.rect) === name);
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
