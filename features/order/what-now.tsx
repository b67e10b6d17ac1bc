"use client";
import { useState } from "react";
import type { Now } from "../../core/order";
import type { OrderSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";

/** With a part missing or some minutes left: what can be done, and where to stop. */
export function WhatNow({ view }: { view: Pick<OrderSlice, "build" | "notHere" | "head"> }) {
  const act = useAct();
  const [missing, setMissing] = useState<ReadonlySet<string>>(new Set(view.notHere));
  const [minutes, setMinutes] = useState("");
  const [now, setNow] = useState<Now & { titles: Record<string, string> }>();
  const types = new Map(view.build.partTypes.map((t) => [t.id, t.name]));
  const nameOf = (p: OrderSlice["build"]["parts"][number]) => p.label ?? types.get(p.type) ?? p.id;
  const n = Number(minutes);
  return (
    <form
      className="mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          async () => ask("order.now", { number: view.head.number, missing: [...missing], ...(Number.isInteger(n) && n > 0 ? { minutes: n } : {}) }),
          (r) => {
            setNow(r);
            return "";
          },
        );
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex flex-col gap-1">
          <span className="text-second text-soft">Minutes left</span>
          <input className="field w-28" inputMode="numeric" pattern="[0-9]{0,4}" value={minutes} onChange={(e) => setMinutes(e.target.value)} />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-second text-soft">A part is missing</span>
          <select
            className="field w-64"
            value=""
            onChange={(e) => {
              if (e.target.value) setMissing(new Set([...missing, e.target.value]));
            }}
          >
            <option value="">choose a part</option>
            {view.build.parts
              .filter((p) => !missing.has(p.id))
              .map((p) => (
                <option key={p.id} value={p.id}>
                  {nameOf(p)}
                </option>
              ))}
          </select>
        </label>
        <Button type="submit" disabled={act.pending}>
          What can be done now
        </Button>
      </div>
      {missing.size > 0 ? (
        <ul className="mt-2 flex flex-wrap gap-2">
          {view.build.parts
            .filter((p) => missing.has(p.id))
            .map((p) => (
              <li key={p.id}>
                <Button
                  className="min-h-8 px-3 text-second"
                  aria-label={`${nameOf(p)} is here after all`}
                  onClick={() => setMissing(new Set([...missing].filter((x) => x !== p.id)))}
                >
                  without {nameOf(p)} ×
                </Button>
              </li>
            ))}
        </ul>
      ) : null}
      <div role="status" className="mt-2">
        {act.sentence}
        {now ? (
          <>
            <p className="font-semibold">{now.words}</p>
            {now.waits.length > 0 ? (
              <p className="text-second">
                Waits:{" "}
                {now.waits
                  .slice(0, 8)
                  .map((w) => `${now.titles[w.step]} (${w.for})`)
                  .join("; ")}
                {now.waits.length > 8 ? ` and ${now.waits.length - 8} more` : ""}.
              </p>
            ) : null}
          </>
        ) : null}
      </div>
    </form>
  );
}
