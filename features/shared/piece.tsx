"use client";
import { useState } from "react";
import type { Facts } from "../../server/parts/facts";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { factsAction } from "../actions/parts";
import { useAct } from "../frame/use-act";

const ORIGIN: Record<NonNullable<Facts["origin"]>, string> = {
  new: "new",
  "second-hand": "second-hand",
  client: "the client's",
  bundle: "from a bundle",
  loan: "on loan",
};

/** What is known of a piece in one line. */
export const pieceWords = (f: Facts): string =>
  [
    f.origin
      ? `${ORIGIN[f.origin]}${f.whose ? `, ${f.origin === "loan" ? "of" : "from"} ${f.whose}` : ""}${f.untilOn ? `, until ${f.untilOn}` : ""}`
      : "",
    f.firmware ? `firmware ${f.firmware}` : "",
    f.madeOn ? `made ${f.madeOn}` : "",
    f.condition,
    f.proved ? `proved: ${f.proved}` : "",
    f.defect.what
      ? `defect: ${f.defect.what}${f.defect.toldOn ? `, told ${f.defect.toldOn}` : ""}${f.defect.answer ? `; answer: ${f.defect.answer}` : ""}`
      : "",
  ]
    .filter(Boolean)
    .join("; ");

/** What is known of this very piece: where it comes from, its firmware and state, what was proved on it, a defect told to its maker. */
export function Piece({
  number,
  part,
  name,
  facts,
  before = [],
  bench = false,
}: {
  number: string;
  part: string;
  name: string;
  facts: Facts;
  before?: readonly { job: string; name: string }[];
  bench?: boolean;
}) {
  const act = useAct();
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState(facts);
  const set = <K extends keyof Facts>(k: K, v: Facts[K]) => setForm((f) => ({ ...f, [k]: v }));
  const field = bench ? "min-h-14 w-full rounded border-2 border-edge bg-sheet px-3 text-bench" : "field w-full";
  const text = (id: "firmware" | "whose" | "condition" | "proved", word: string, most: number) => (
    <label>
      <span className="block text-soft">{word}</span>
      <input className={field} value={form[id]} maxLength={most} onChange={(e) => set(id, e.target.value)} />
    </label>
  );
  const date = (id: "madeOn" | "untilOn", word: string) => (
    <label>
      <span className="block text-soft">{word}</span>
      <input className={`${field} mono`} type="date" value={form[id] ?? ""} onChange={(e) => set(id, e.target.value || null)} />
    </label>
  );
  return (
    <div className={bench ? "border-t border-rule pt-4" : "text-second"}>
      <p className="text-soft">
        {pieceWords(facts) || "Nothing is known of this piece yet."}
        {before.map((b) => ` It was in ${b.job} before, as ${b.name}.`).join("")}
      </p>
      <Dialog
        open={open}
        bench={bench}
        onOpenChange={(to) => {
          if (to) setForm(facts);
          setOpen(to);
        }}
        title={`This ${name}`}
        className={bench ? "" : "w-[560px]"}
        trigger={
          <Button bench={bench} className="mt-1">
            What is known of this piece
          </Button>
        }
      >
        <form
          className="grid grid-cols-2 gap-x-4 gap-y-3"
          onSubmit={(e) => {
            e.preventDefault();
            const { came: _, ...mine } = form;
            act.run(
              () => factsAction({ number, part, facts: mine }),
              () => {
                setOpen(false);
                return "Recorded.";
              },
            );
          }}
        >
          <label>
            <span className="block text-soft">Where it comes from</span>
            <select className={field} value={form.origin ?? ""} onChange={(e) => set("origin", (e.target.value || null) as Facts["origin"])}>
              <option value="">not said</option>
              {Object.entries(ORIGIN).map(([id, word]) => (
                <option key={id} value={id}>
                  {word}
                </option>
              ))}
            </select>
          </label>
          {text("whose", form.origin === "loan" ? "Whose it is" : "From whom", 120)}
          {form.origin === "loan" ? date("untilOn", "On loan until") : null}
          {text("firmware", "Firmware on it", 60)}
          {date("madeOn", "Made on")}
          {text("condition", "Its condition", 300)}
          {text("proved", "Proved on it (clock, memory speed that held)", 200)}
          <label className="col-span-2">
            <span className="block text-soft">A defect of it</span>
            <input
              className={field}
              value={form.defect.what}
              maxLength={300}
              onChange={(e) => set("defect", { ...form.defect, what: e.target.value })}
            />
          </label>
          {form.defect.what ? (
            <>
              <label>
                <span className="block text-soft">Told to its maker on</span>
                <input
                  className={`${field} mono`}
                  type="date"
                  value={form.defect.toldOn ?? ""}
                  onChange={(e) => set("defect", { ...form.defect, toldOn: e.target.value || null })}
                />
              </label>
              <label>
                <span className="block text-soft">What they answered</span>
                <input
                  className={field}
                  value={form.defect.answer}
                  maxLength={300}
                  onChange={(e) => set("defect", { ...form.defect, answer: e.target.value })}
                />
              </label>
            </>
          ) : null}
          <p role="alert" className="col-span-2">
            {act.sentence === "Recorded." ? "" : act.sentence}
          </p>
          <Button type="submit" tone="mark" bench={bench} className="col-span-2" disabled={act.pending}>
            Keep it
          </Button>
        </form>
      </Dialog>
    </div>
  );
}
