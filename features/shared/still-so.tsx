"use client";
import type { TipView } from "../../server/shelf/tips";
import { Button } from "../../ui/button";
import { stillSoAction } from "../actions/shelf";
import type { Acting } from "../frame/use-act";

/** A tip is still so, with the name of whoever has the part in the hand. */
export function StillSo({ tip, act, bench = false }: { tip: TipView; act: Acting; bench?: boolean }) {
  return (
    <Button
      bench={bench}
      aria-label={`Still so: ${tip.words}`}
      disabled={act.pending}
      onClick={() =>
        act.run(
          () => stillSoAction({ tip: tip.id }),
          () => "Still so, with your name.",
        )
      }
    >
      Still so
    </Button>
  );
}
