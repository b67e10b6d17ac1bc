"use client";
import { useState } from "react";
import type { Graph } from "../../core/assembly";
import { fullName } from "../../core/catalogue";
import type { Clearance } from "../../core/fit";
import { Button } from "../../ui/button";
import { FrontSection } from "./front-section";
import { SideSection } from "./side-section";

/** The case to scale: from the side with the rear to the left, or from the front with the tray to the left. */
export function CaseSection({
  graph,
  chosen,
  clearance,
  onChoose,
}: {
  graph: Graph;
  chosen: string;
  clearance: Clearance | undefined;
  onChoose: (id: string) => void;
}) {
  const [view, setView] = useState<"side" | "front">("side");
  const shell = [...graph.parts.values()].find((p) => p.type.kind === "case" && !p.cable);
  if (!shell) return <p className="p-6">No case in the parts list: nothing to draw to scale. Add one.</p>;
  const b = shell.type.body;
  return (
    <div className="flex h-full flex-col p-4">
      <div className="flex items-start gap-2">
        <div className="min-w-0 flex-1">
          <h2 className="truncate text-key font-[650]">{fullName(shell.type)}</h2>
          <p className="text-second text-soft">
            {view === "side"
              ? `From the side, rear to the left, to scale. ${b.behindTrayMm === undefined ? "How much room is behind the tray is not known." : `${b.behindTrayMm} mm behind the tray.`}`
              : "From the front, tray to the left, to scale."}
          </p>
        </div>
        {(["side", "front"] as const).map((v) => (
          <Button key={v} className="shrink-0 px-2 text-second" aria-pressed={view === v} onClick={() => setView(v)}>
            {v === "side" ? "Side" : "Front"}
          </Button>
        ))}
      </div>
      {view === "side" ? (
        <SideSection graph={graph} shell={shell} chosen={chosen} clearance={clearance} onChoose={onChoose} />
      ) : (
        <FrontSection graph={graph} chosen={chosen} onChoose={onChoose} />
      )}
    </div>
  );
}
