"use client";
import { useKeys } from "../frame/keys";
import { canNow } from "./cards";
import type { AtBenchScreen } from "./use-bench-state";

/** Keys of the bench, and what a scan of a lead's tag means at the card in front. */
export function useBenchKeys({ view, card, steps, lead, elsewhere, say, setSaid, press, look, setSheet, setCamera, takeBack }: AtBenchScreen): void {
  useKeys(
    "screen",
    [
      { keys: [" ", "Enter"], word: "Done", only: "keys", run: press },
      { keys: ["ArrowLeft"], word: "Look back", run: () => look(-1) },
      { keys: ["ArrowRight"], word: "Look ahead", run: () => look(1) },
      { keys: ["d"], word: "Differs: it is somewhere else", run: () => setSheet("differs") },
      { keys: ["p"], word: "Problem", run: () => setSheet("problem") },
      { keys: ["c"], word: "Photo", run: () => setCamera((n) => n + 1) },
      { keys: ["s"], word: "Skip this card", run: () => setSheet("skip") },
      { keys: ["l"], word: "All steps", run: () => setSheet("list") },
      { keys: ["v"], word: "If I press the button now", run: () => setSheet("press") },
      { keys: ["ctrl+z"], word: "Take back the last entry of mine", run: takeBack },
    ],
    (code) => {
      const hit = view.leads.find((l) => l.tag.toLowerCase() === code.toLowerCase());
      if (!hit) return false;
      const on = card?.steps.find((s) => s.lead === hit.address);
      const many = (card?.steps.length ?? 0) > 1;
      // Where a card has many plugs the scan of a tag says which of them is in; a card of one waits for Done.
      if (card && on && many && !on.done && !elsewhere && canNow(on, card, steps)) {
        if (say([on], true)) setSaid(`${hit.tag} is ticked: into ${hit.portName ?? "its port"}. Tap it to take that back.`);
        return true;
      }
      setSaid(
        !on
          ? `Wrong lead: that is ${hit.tag}, ${hit.name}. This card wants ${lead?.tag ?? "another"}.`
          : on.done
            ? `${hit.tag} is in already.`
            : `Right lead: ${hit.tag}. ${many ? `It goes into ${hit.portName ?? "its port"}, but not yet.` : "Plug it, then press Done."}`,
      );
      return true;
    },
  );
}
