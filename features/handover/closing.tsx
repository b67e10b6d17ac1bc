"use client";
import { useState } from "react";
import type { Missing } from "../../core/handover";
import type { ReadyView } from "../../server/handover/recorded";
import { Button } from "../../ui/button";
import { handOverAction, reopenAction } from "../actions/handover";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";

/** Hands the machine over and closes the job, or opens it again. With something missing it takes a lead and a reason. */
export function Closing({
  number,
  stage,
  missing,
  lead,
  leaving,
}: {
  number: string;
  stage: string;
  missing: readonly Missing[];
  lead: boolean;
  leaving: ReadyView["leaving"];
}) {
  const act = useAct();
  const dates = useDates();
  const [reason, setReason] = useState("");
  const [who, setWho] = useState("");
  const [saw, setSaw] = useState("");
  const [carrier, setCarrier] = useState("");
  const [tracking, setTracking] = useState("");
  const closed = stage === "handed-over" || stage === "cancelled";
  const travels = leaving.way === "travels";
  const asks = closed || (missing.length > 0 && lead);
  const field = (word: string, value: string, set: (v: string) => void, most: number) => (
    <label className="flex min-w-44 flex-1 flex-col gap-1">
      <span className="text-second text-soft">{word}</span>
      <input className="field w-full" value={value} maxLength={most} onChange={(e) => set(e.target.value)} />
    </label>
  );
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-y border-rule py-3"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () => (closed ? reopenAction({ number, reason }) : handOverAction({ number, reason, who, saw, carrier, tracking })),
          () => {
            setReason("");
            return closed
              ? stage === "cancelled"
                ? "Open again: it goes on at its plan."
                : "Open again: it goes on at first boot."
              : "Handed over, and the job is closed.";
          },
        );
      }}
    >
      {closed ? (
        <p className="w-full">
          This job was {stage === "cancelled" ? "cancelled" : "handed over"} and is closed: nothing more is recorded on it.
          {leaving.taken
            ? ` ${leaving.taken.carrier ? `Sent with ${leaving.taken.carrier}${leaving.taken.tracking ? `, number ${leaving.taken.tracking}` : ""}` : leaving.taken.who ? `Taken by ${leaving.taken.who}` : "It left"}, ${dates.both(leaving.taken.at)}${leaving.taken.saw ? `; shown: ${leaving.taken.saw}` : ""}.`
            : ""}
        </p>
      ) : (
        <>
          {travels ? field("Carrier", carrier, setCarrier, 120) : field("Who takes it", who, setWho, 120)}
          {travels ? field("Its number there", tracking, setTracking, 120) : field("What they were shown running", saw, setSaw, 500)}
        </>
      )}
      {asks ? (
        <label className="flex w-full flex-col gap-1">
          <span className="text-second text-soft">{closed ? "Why it is opened again" : "Why it goes like this"}</span>
          <input className="field w-full" value={reason} maxLength={500} onChange={(e) => setReason(e.target.value)} />
        </label>
      ) : null}
      <Button type="submit" tone={closed || missing.length > 0 ? "plain" : "mark"} disabled={act.pending}>
        {closed ? "Open it again" : missing.length > 0 && lead ? "Hand over as it is" : "Hand over"}
      </Button>
      {!closed && missing.length > 0 && !lead ? <p className="flex-1 text-second text-soft">As it is, a lead lets it go.</p> : null}
      <p role="status" className="w-full">
        {act.sentence}
      </p>
    </form>
  );
}
