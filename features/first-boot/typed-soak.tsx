"use client";
import { useState } from "react";
import type { GivenReadings } from "../../server/first-boot/soak-log";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { soakLogAction } from "../actions/first-boot";
import { useAct } from "../frame/use-act";

const FIELDS = [
  ["minutes", "Minutes under load", undefined],
  ["cpuC", "Highest of the CPU, °C", { name: "CPU, read", part: "cpu", quantity: "temperature" }],
  ["cardC", "Highest of the graphics card, °C", { name: "Graphics card, read", part: "card", quantity: "temperature" }],
  ["clock", "Lowest clock of the CPU, MHz", { name: "CPU clock, lowest read", part: "cpu", quantity: "clock" }],
] as const;

/** A soak without a log: what somebody read, typed. */
export function TypedSoak({ number }: { number: string }) {
  const act = useAct();
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState<Record<string, string>>({});
  const keep = () => {
    const minutes = Number(form.minutes);
    const read = FIELDS.flatMap(([id, , column]) => (column && form[id] ? [{ column, value: Number(form[id]) }] : []));
    const readings: GivenReadings = {
      atS: [0, minutes * 60],
      columns: [...read.map((r) => ({ ...r.column })), { name: "CPU load, said", part: "cpu", quantity: "load" }],
      values: [...read.map((r) => [r.value, r.value]), [100, 100]],
    };
    act.run(
      () => soakLogAction({ number, name: "typed", conditions: form.conditions ?? "", readings }),
      () => {
        setOpen(false);
        setForm({});
        return "";
      },
    );
  };
  return (
    <Dialog open={open} onOpenChange={setOpen} title="A soak, typed" className="w-[560px]" trigger={<Button>Type what was read</Button>}>
      <form
        className="grid grid-cols-2 gap-3 max-[760px]:grid-cols-1"
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        {FIELDS.map(([id, word]) => (
          <label key={id}>
            <span className="block text-second text-soft">{word}</span>
            <input
              className="field mono w-full"
              type="number"
              min={0}
              max={30000}
              step="any"
              required={id === "minutes" || id === "cpuC"}
              value={form[id] ?? ""}
              onChange={(e) => setForm((f) => ({ ...f, [id]: e.target.value }))}
            />
          </label>
        ))}
        <label className="col-span-full">
          <span className="block text-second text-soft">Fans held or by curve, room, panels on, how the supply sounded</span>
          <input
            className="field w-full"
            maxLength={150}
            value={form.conditions ?? ""}
            onChange={(e) => setForm((f) => ({ ...f, conditions: e.target.value }))}
          />
        </label>
        <p role="alert" className="col-span-full text-second">
          {act.sentence}
        </p>
        <Button type="submit" tone="mark" className="col-span-full" disabled={act.pending}>
          Keep it
        </Button>
      </form>
    </Dialog>
  );
}
