"use client";
import { Pencil } from "lucide-react";
import { useState } from "react";
import type { HeadView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field, Select } from "../../ui/field";
import { Fold } from "../../ui/fold";
import { cancelAction, detailsAction, goOnAction, parkAction } from "../actions/job";
import { useKeys } from "../frame/keys";
import { type Acting, useAct } from "../frame/use-act";

const MOST_BENCH = 99;
const closed = (stage: string) => stage === "handed-over" || stage === "cancelled";

/** What a job is for, until when, where and by whom; and what becomes of it when it cannot go on. */
export function JobDetails({ head, people, mayEnd }: { head: HeadView; people: { id: string; name: string }[]; mayEnd: boolean }) {
  const [open, setOpen] = useState(false);
  const act = useAct();
  useKeys("job", [
    { keys: [], word: "Change the job: client, due, bench, technician", run: () => setOpen(true) },
    ...(head.stage === "waiting"
      ? [{ keys: [], word: "Let the job go on", run: () => setOpen(true) }]
      : closed(head.stage)
        ? []
        : [{ keys: [], word: "Park the job until something arrives", run: () => setOpen(true) }]),
    ...(mayEnd && !closed(head.stage) ? [{ keys: [], word: "Cancel the job", run: () => setOpen(true) }] : []),
  ]);
  return (
    <Dialog
      open={open}
      onOpenChange={(o) => {
        setOpen(o);
        act.clear();
      }}
      title={`${head.number}, the job`}
      className="w-[640px]"
      trigger={
        <Button className="px-2">
          <Pencil size={16} aria-hidden />
          <span className="sr-only">Change the job</span>
        </Button>
      }
    >
      {closed(head.stage) ? (
        <p>This job is closed: nothing more is recorded on it. Handover opens it again.</p>
      ) : (
        <>
          <Details head={head} people={people} act={act} />
          <Parking head={head} act={act} />
          {mayEnd ? <Ending number={head.number} act={act} onDone={() => setOpen(false)} /> : null}
        </>
      )}
      <p role="status" className="min-h-6 font-semibold">
        {[act.sentence, ...act.more].join(" ")}
      </p>
    </Dialog>
  );
}

function Details({ head, people, act }: { head: HeadView; people: { id: string; name: string }[]; act: Acting }) {
  const [form, setForm] = useState({
    client: head.client,
    title: head.title,
    purpose: head.purpose,
    dueOn: head.dueOn ?? "",
    bench: head.bench === null ? "" : String(head.bench),
    technician: people.find((p) => p.name === head.technician)?.id ?? "",
  });
  // As the screen showed it when it was opened: a change of somebody else's meanwhile is not written over.
  const [saw] = useState({
    client: head.client,
    title: head.title,
    purpose: head.purpose,
    dueOn: head.dueOn,
    bench: head.bench,
    technician: head.technician,
  });
  const set = (what: keyof typeof form) => (e: { target: { value: string } }) => setForm((f) => ({ ...f, [what]: e.target.value }));
  return (
    <form
      className="grid grid-cols-1 gap-3 sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () =>
            detailsAction({
              number: head.number,
              client: form.client,
              title: form.title,
              purpose: form.purpose,
              dueOn: form.dueOn || null,
              bench: form.bench === "" ? null : Number(form.bench),
              technician: form.technician || null,
              saw,
            }),
          () => "Changed.",
        );
      }}
    >
      <Field word="Client" value={form.client} onChange={set("client")} maxLength={120} required />
      <Field word="Machine" value={form.title} onChange={set("title")} maxLength={120} required />
      <Field word="What it is for" value={form.purpose} onChange={set("purpose")} maxLength={300} className="sm:col-span-2" />
      <Field word="Due" type="date" value={form.dueOn} onChange={set("dueOn")} />
      <Field word="Bench; empty: on none" type="number" min={1} max={MOST_BENCH} value={form.bench} onChange={set("bench")} />
      <Select word="Technician" value={form.technician} onChange={set("technician")}>
        <option value="">nobody yet</option>
        {people.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </Select>
      <Button type="submit" tone="mark" disabled={act.pending} className="self-end justify-self-end">
        Keep it so
      </Button>
    </form>
  );
}

function Parking({ head, act }: { head: HeadView; act: Acting }) {
  const [what, setWhat] = useState("");
  const [until, setUntil] = useState("");
  if (head.stage === "waiting")
    return (
      <div className="flex flex-wrap items-center gap-3 border-t border-rule pt-3">
        <p className="flex-1">It waits for {head.waitingFor}.</p>
        <Button
          disabled={act.pending}
          onClick={() =>
            act.run(
              () => goOnAction({ number: head.number }),
              () => "The job goes on.",
            )
          }
        >
          Let it go on
        </Button>
      </div>
    );
  return (
    <Fold word="Park it until something arrives" className="border-t border-rule pt-3">
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => parkAction({ number: head.number, for: what, until: until || null }),
            () => `It waits for ${what}.`,
          );
        }}
      >
        <Field word="What it waits for" value={what} onChange={(e) => setWhat(e.target.value)} maxLength={200} required className="min-w-60 flex-1" />
        <Field word="Until, if that is known" type="date" value={until} onChange={(e) => setUntil(e.target.value)} />
        <Button type="submit" disabled={act.pending}>
          Park it
        </Button>
      </form>
    </Fold>
  );
}

function Ending({ number, act, onDone }: { number: string; act: Acting; onDone: () => void }) {
  const [reason, setReason] = useState("");
  return (
    <Fold word="Cancel it" className="border-t border-rule pt-3">
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => cancelAction({ number, reason }),
            () => {
              onDone();
              return "";
            },
          );
        }}
      >
        <Field
          word="Why"
          hint="Nothing more is recorded on it; what the shelf had promised it is free again. Handover opens it again."
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          maxLength={500}
          required
          className="min-w-60 flex-1"
        />
        <Button type="submit" disabled={act.pending}>
          Cancel the job
        </Button>
      </form>
    </Fold>
  );
}
