"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Heat } from "../../core/machine";
import { soakOf } from "../../core/soak";
import type { GivenReadings } from "../../server/first-boot/soak-log";
import type { StreamView } from "../../server/machine/stream";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { keepStreamAction, letMachineInAction, shutMachineOutAction } from "../actions/machine";
import { ask } from "../frame/ask";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { Curves } from "./curves";

const LOOK_MS = 5000;
/** Nothing for so long: somebody should look. */
const SILENT_MS = 60_000;
const keyOf = (number: string) => ["machine.streams", number];

/** What comes from the machine itself, as it comes: whether it is logging, how hot it is, and the key that keeps it as a log. */
export function Streams({ number, heat, conditions }: { number: string; heat: Heat | null; conditions: string }) {
  const asked = useQuery({ queryKey: keyOf(number), queryFn: () => ask("machine.streams", { number }), refetchInterval: LOOK_MS });
  const streams = asked.data?.ok ? asked.data.value : [];
  if (streams.length === 0) return null;
  return (
    <ul aria-label="Readings as they come">
      {streams.map((s) => (
        <Stream key={s.id} number={number} s={s} heat={heat} conditions={conditions} />
      ))}
    </ul>
  );
}

function Stream({ number, s, heat, conditions }: { number: string; s: StreamView; heat: Heat | null; conditions: string }) {
  const act = useAct();
  const dates = useDates();
  const client = useQueryClient();
  const again = () => client.invalidateQueries({ queryKey: keyOf(number) });
  const silent = s.lastAt === null ? undefined : Date.now() - Date.parse(s.lastAt);
  const hot = Object.entries(s.last).filter(([n]) => n.endsWith("°C"));
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule py-2">
      <div className="min-w-0 basis-full">
        {s.simulated ? <span className="mr-2 border-2 border-ink px-1 font-semibold">Simulated</span> : null}
        <span className={silent !== undefined && silent > SILENT_MS && s.open ? "font-semibold text-stop" : "font-semibold"}>
          {s.lastAt === null
            ? "Nothing has come yet"
            : !s.open
              ? `${s.minutes} minutes of readings wait`
              : silent !== undefined && silent > SILENT_MS
                ? `Not logging: the last came at ${dates.clock(s.lastAt)}`
                : `Logging: ${s.inLastMinute} ${s.inLastMinute === 1 ? "reading" : "readings"} this minute`}
        </span>
        <span className="block text-second text-soft">
          {s.name}, {s.by}; {s.open ? `may send until ${dates.both(s.until)}` : "may not send any more"}
          {s.minutes > 0 ? `; ${s.minutes} minutes so far` : ""}
        </span>
        {hot.length > 0 ? (
          <span className="mono block text-second">
            {hot
              .slice(0, 4)
              .map(([n, v]) => `${n.slice(0, -3)} ${v} °C`)
              .join("   ")}
          </span>
        ) : null}
        <ActSaid act={act} />
      </div>
      {s.log ? (
        <Dialog title={`${s.name}, as it comes`} className="w-[860px]" trigger={<Button>Curve so far</Button>}>
          <Curves readings={s.log} soak={soakOf(whole(s.log))} heat={heat} simulated={s.simulated} />
        </Dialog>
      ) : null}
      {s.log ? (
        <Button
          disabled={act.pending}
          onClick={() =>
            act.run(
              async () => {
                const said = await keepStreamAction({ number, id: s.id, conditions });
                await again();
                return said;
              },
              (soak) => `Kept as a log: ${soak.verdict}. ${soak.because[0] ?? ""}`,
            )
          }
        >
          Keep it as the soak's log
        </Button>
      ) : null}
      {s.open ? (
        <Button
          disabled={act.pending}
          onClick={() =>
            act.run(
              async () => {
                const said = await shutMachineOutAction({ number, id: s.id });
                await again();
                return said;
              },
              () => "It may not send any more.",
            )
          }
        >
          Withdraw
        </Button>
      ) : null}
    </li>
  );
}
const whole = (r: GivenReadings) => ({ ...r, values: r.values.map((v) => v.map((x) => x ?? Number.NaN)), unknown: [], faults: [] });

/** Lets the machine send: what its start drive has to run stands here once. */
export function LetIn({ number }: { number: string }) {
  const act = useAct();
  const client = useQueryClient();
  const [token, setToken] = useState("");
  const [hours, setHours] = useState(24);
  const at = typeof window === "undefined" ? "" : `${window.location.origin}/machine`;
  const send = `curl -fsS -H 'Authorization: Bearer ${token}' --data-binary @- ${at}`;
  const lines = [
    ["Readings, every five seconds", `while sleep 5; do sensors -j | ${send}; done`],
    ["What is in it, once", `lshw -json | ${send}`],
  ] as const;
  const own = /^https?:\/\/(localhost|127\.|\[::1\])/.test(at);
  return (
    <Dialog
      title="Let the machine send its readings"
      className="w-[760px]"
      trigger={<Button>Let the machine send</Button>}
      onOpenChange={(open) => {
        if (!open) setToken("");
      }}
    >
      {token === "" ? (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            act.run(
              async () => {
                const said = await letMachineInAction({ number, hours });
                await client.invalidateQueries({ queryKey: keyOf(number) });
                return said;
              },
              (made) => {
                setToken(made.token);
                return "";
              },
            );
          }}
        >
          <p>
            A line that the start drive runs sends what the machine reads of itself to {number}, and to nothing else. It is good for some hours, can
            be withdrawn, and is shown once.
          </p>
          <label>
            <span className="block text-second text-soft">Hours</span>
            <input className="field mono w-24" type="number" min={1} max={72} value={hours} onChange={(e) => setHours(Number(e.target.value))} />
          </label>
          <Button tone="mark" type="submit" className="self-start" disabled={act.pending}>
            Make the line
          </Button>
          <ActSaid act={act} />
        </form>
      ) : (
        <div className="flex flex-col gap-3">
          <p className="font-semibold">Copy it now: it is not shown again.</p>
          {lines.map(([what, text]) => (
            <div key={what} className="flex flex-col gap-1">
              <span className="text-second text-soft">{what}</span>
              <code className="mono break-all border border-rule p-2 text-second">{text}</code>
              <Button
                className="self-start"
                onClick={() =>
                  act.run(
                    async () => ({ ok: true as const, value: await navigator.clipboard?.writeText(text) }),
                    () => "Copied.",
                  )
                }
              >
                Copy
              </Button>
            </div>
          ))}
          {own ? (
            <p className="text-second">
              This page is open on the shop's own computer: in the line, put that computer's name on your network in place of the address.
            </p>
          ) : null}
          <ActSaid act={act} />
        </div>
      )}
    </Dialog>
  );
}
