"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { anotherModelAction } from "../actions/faults";
import { planAction } from "../actions/wiring";
import { ask } from "../frame/ask";
import type { Acting } from "../frame/use-act";

interface Of {
  number: string;
  fault: number;
  deed: string;
  part: string;
  act: Acting;
}

/** No other of the same lies here: another model goes in, and only its own leads are planned anew. */
export function AnotherModel(of: Of) {
  return (
    <Fold word="Another model goes in" className="mt-2 text-second">
      <Choose {...of} />
    </Fold>
  );
}

function Choose({ number, fault, deed, part, act }: Of) {
  const [model, setModel] = useState("");
  const [serial, setSerial] = useState("");
  const asked = useQuery({ queryKey: ["parts.alternatives", number, part], queryFn: () => ask("parts.alternatives", { number, part }) });
  if (asked.isPending) return <p role="status">Judging every one on the shelf …</p>;
  if (!asked.data?.ok) return <p role="alert">{asked.data?.sentence ?? "No answer from the server. Fold it up and open it again."}</p>;
  const models = asked.data.value.filter((m) => m.changes.length === 1 && m.changes[0]?.part === part && !m.changes[0].adds);
  const chosen = models.find((m) => m.id === model);
  return (
    <form
      className="mt-2 flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!chosen) return;
        act.run(
          async () => {
            const stored = await anotherModelAction({
              number,
              fault,
              deed,
              model: chosen.changes[0]?.type,
              ...(serial.trim() ? { serial: serial.trim() } : {}),
            });
            return stored.ok ? planAction({ number }) : stored;
          },
          (plan) =>
            `${chosen.name} is in its place on record, and the fault is closed. Plan ${plan.revision} keeps what is plugged: ${plan.moved} ${
              plan.moved === 1 ? "plug moves" : "plugs move"
            }. Plug its leads at the bench, then look at those lines of the first-boot sheet again.`,
        );
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex min-w-0 flex-col gap-1">
          Which one
          <select className="field" value={model} onChange={(e) => setModel(e.target.value)}>
            <option value="">choose</option>
            {models.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
                {m.stops > 0 ? `: ${m.stops} ${m.stops === 1 ? "stop" : "stops"}` : ""}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          Its serial
          <input className="field mono w-48" value={serial} maxLength={80} onChange={(e) => setSerial(e.target.value)} />
        </label>
        <Button type="submit" disabled={act.pending || !chosen}>
          It goes in
        </Button>
      </div>
      {models.length === 0 ? <p>The shelf has no other of its kind. Enter one on Shelf first.</p> : null}
      {chosen ? (
        <p role="status">
          {chosen.stops > 0
            ? `It does not go in as it is: ${chosen.worse[0] ?? "see Parts"}`
            : chosen.worse.length > 0
              ? `Otherwise than now: ${chosen.worse.slice(0, 3).join("; ")}.`
              : "Nothing gets worse by it."}
        </p>
      ) : null}
    </form>
  );
}
