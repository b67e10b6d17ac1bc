"use client";
import { type ReactNode, useState } from "react";
import type { Curve } from "../../core/setup";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { StateMark } from "../../ui/marks";
import { setUpAction } from "../actions/first-boot";
import { type Acting, useAct } from "../frame/use-act";
import { CurveTable } from "./curve-table";
import { ROW, What } from "./sheet-line";

type Item = JobView["after"]["items"][number];
const STATE = { open: "free", "as wanted": "checked", otherwise: "wrong", later: "waiting", "not done": "planned" } as const;
const WORD = { open: "open", "as wanted": "as wanted", otherwise: "otherwise than wanted", later: "put off", "not done": "not done" } as const;

/** What was written down and is not what is wanted now. */
function wrongOf({ stands, done, target }: Item): string | undefined {
  if (stands === "otherwise") return `Is ${done?.after || "not said"}, wanted ${target}`;
  return stands === "open" && done ? `Was ${done.after || "set"} when wanted was: ${done.target}. Look again.` : undefined;
}

/** One thing of the set-up: how it is to be, one key where it is so, a sheet for everything else. */
export function SetupRow({
  number,
  item,
  curve,
  next,
  act,
  photo,
}: {
  number: string;
  item: Item;
  curve?: Curve | undefined;
  next?: Curve | undefined;
  act: Acting;
  photo: ReactNode;
}) {
  const saw = item.done ? { state: item.done.state, after: item.done.after } : null;
  return (
    <li className={ROW}>
      <What what={item.what} because={item.how} wrong={wrongOf(item)} />
      <span className="text-second leading-tight" title={item.target}>
        <span className="sr-only">Wanted: </span>
        <span className={item.done ? "line-clamp-1" : "line-clamp-2"}>{item.target}</span>
        {item.done ? <span className="block truncate text-soft">{item.done.by}</span> : null}
      </span>
      <div className="flex flex-wrap items-center gap-2">
        {item.stands === "open" && item.value === undefined ? (
          <Button
            className="min-h-9 px-3"
            disabled={act.pending}
            aria-label={`${item.what}: as wanted`}
            onClick={() =>
              act.run(
                () => setUpAction({ number, item: item.id, state: "set", saw }),
                () => `${item.what}: as wanted.`,
              )
            }
          >
            As wanted
          </Button>
        ) : item.stands === "open" ? null : (
          <StateMark state={STATE[item.stands]} size={13} word={WORD[item.stands]} />
        )}
        <SetupSheet number={number} item={item} curve={curve} next={next} saw={saw} />
        {photo}
      </div>
    </li>
  );
}

function SetupSheet({
  number,
  item,
  curve,
  next,
  saw,
}: {
  number: string;
  item: Item;
  curve: Curve | undefined;
  next: Curve | undefined;
  saw: { state: "set" | "later" | "not"; after: string } | null;
}) {
  const act = useAct();
  const [open, setOpen] = useState(false);
  const was = { before: item.done?.before ?? "", after: item.done?.after ?? "", why: item.done?.why ?? "" };
  const [form, setForm] = useState(was);
  const keep = (state: "set" | "later" | "not") =>
    act.run(
      () => setUpAction({ number, item: item.id, state, ...form, saw }),
      () => {
        setOpen(false);
        return "";
      },
    );
  const field = (id: keyof typeof form, word: string, most: number) => (
    <label>
      <span className="block text-second text-soft">{word}</span>
      <input className="field w-full" maxLength={most} value={form[id]} onChange={(e) => setForm((f) => ({ ...f, [id]: e.target.value }))} />
    </label>
  );
  return (
    <Dialog
      open={open}
      onOpenChange={(to) => {
        if (to) setForm(was);
        setOpen(to);
      }}
      title={item.what}
      className={curve ? "w-[860px]" : "w-[560px]"}
      trigger={
        <Button className="min-h-9 px-3" aria-label={`${item.what}: write it down`}>
          {curve ? "Curve" : item.value === undefined ? "Otherwise" : "Write it down"}
        </Button>
      }
    >
      <p>
        Wanted: {item.target}. <span className="text-soft">{item.how}</span>
      </p>
      {curve && curve.mode !== "full" ? <CurveTable curve={curve} next={next} /> : null}
      <form
        className="mt-3 grid grid-cols-2 gap-3 max-[760px]:grid-cols-1"
        onSubmit={(e) => {
          e.preventDefault();
          keep("set");
        }}
      >
        {field("before", "Before", 120)}
        {field("after", item.unit ? `Now, ${item.unit}` : "Now", 200)}
        <div className="col-span-full">{field("why", "Why, where it is not done or otherwise", 300)}</div>
        <p role="alert" className="col-span-full text-second">
          {act.sentence}
        </p>
        <div className="col-span-full flex flex-wrap gap-3">
          <Button type="submit" tone="mark" disabled={act.pending}>
            It is set
          </Button>
          <Button disabled={act.pending} onClick={() => keep("later")}>
            Put it off
          </Button>
          <Button disabled={act.pending} onClick={() => keep("not")}>
            It is not done
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
