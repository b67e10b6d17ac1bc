"use client";
import { type ReactNode, useEffect, useState } from "react";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { SeverityShape } from "../../ui/marks";
import { giveBackAction, keepSecretAction, leaveAloneAction, lendAction, lookedAtAction, showSecretAction } from "../actions/first-boot";
import { useDates } from "../frame/dates";
import { type Acting, useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";

type After = JobView["after"];
const MINUTE_MS = 60_000;

/** What stands beside the system: what is on loan in the machine, what runs by itself, what only its client is to know. */
export function Beside({ number, after }: { number: string; after: After }) {
  const act = useAct();
  const dates = useDates();
  // What was shown stays until its sheet is closed: the server has it no more.
  const [shown, setShown] = useState<Record<string, string>>({});
  const run = (work: Parameters<Acting["run"]>[0], said: string) => act.run(work, () => said);
  return (
    <div className="flex flex-col gap-2 border-t border-rule px-4 py-3">
      <div className="flex flex-wrap gap-3">
        <Ask
          word="Lend something"
          title="On loan in this machine"
          note="It has to be out before the machine goes: handover waits for it."
          fields={[
            ["what", "What", "Start drive 2"],
            ["owner", "Whose", "the shop"],
            ["serial", "Serial or mark, where it has one", ""],
          ]}
          onDone={(f) => lendAction({ number, ...f })}
        />
        <Ask
          word="It runs by itself"
          title="It runs by itself"
          note="Hands are free; it says here when it should be over."
          fields={[
            ["what", "What", "Updates"],
            ["minutes", "About how many minutes", "30"],
          ]}
          onDone={(f) => leaveAloneAction({ number, what: f.what, minutes: Number(f.minutes) })}
        />
        <Ask
          word="Seal a secret"
          title="Seal a secret"
          note="A first user's password, a licence key. It is shown once to one person, then nothing of it is left; it stands in no paper, no log, no file."
          fields={[
            ["what", "What it is", "Password of the first user"],
            ["secret", "The secret", ""],
          ]}
          onDone={(f) => keepSecretAction({ number, ...f })}
        />
      </div>
      <ActSaid act={act} />
      <ul>
        {after.alone.map((a) => (
          <Alone key={a.id} a={a}>
            <Button disabled={act.pending} onClick={() => run(() => lookedAtAction({ number, id: a.id }), `${a.what}: looked at.`)}>
              Looked at
            </Button>
          </Alone>
        ))}
        {after.loans.map((l) => (
          <li key={l.id} className="flex flex-wrap items-center gap-3 border-t border-rule py-1">
            <span className="min-w-0 flex-1">
              <span className="font-semibold">On loan: {l.what}</span>
              <span className="block text-second text-soft">
                of {l.owner}
                {l.serial ? `, ${l.serial}` : ""}; {l.by}, {dates.both(l.at)}
              </span>
            </span>
            <Button disabled={act.pending} onClick={() => run(() => giveBackAction({ number, id: l.id }), `${l.what} is out again.`)}>
              It is out again
            </Button>
          </li>
        ))}
        {after.secrets.map((s) => (
          <li key={s.id} className="flex flex-wrap items-center gap-3 border-t border-rule py-1">
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{s.what}</span>
              <span className="block text-second text-soft">{s.shownTo ? `shown to ${s.shownTo}, not kept any more` : `sealed by ${s.by}`}</span>
            </span>
            {s.shownTo && !shown[s.id] ? null : (
              <Show number={number} id={s.id} what={s.what} text={shown[s.id] ?? ""} onShown={(t) => setShown((x) => ({ ...x, [s.id]: t }))} />
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What runs by itself, and whether it should be over by now. */
function Alone({ a, children }: { a: After["alone"][number]; children: ReactNode }) {
  const dates = useDates();
  const [now, setNow] = useState<number>();
  useEffect(() => {
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), MINUTE_MS / 4);
    return () => clearInterval(timer);
  }, []);
  const until = Date.parse(a.at) + a.minutes * MINUTE_MS;
  const left = now === undefined ? a.minutes : Math.ceil((until - now) / MINUTE_MS);
  return (
    <li className="flex flex-wrap items-center gap-3 border-t border-rule py-1">
      <span className="min-w-0 flex-1">
        <span className="flex items-center gap-2 font-semibold">
          {left <= 0 ? <SeverityShape severity="warn" size={16} /> : null}
          {left > 0 ? `Runs by itself: ${a.what}, about ${left} min more` : `${a.what} should be over since ${dates.clock(until)}`}
        </span>
        <span className="block text-second text-soft">
          {a.by}, {dates.both(a.at)}, about {a.minutes} minutes
        </span>
      </span>
      {children}
    </li>
  );
}

function Show({ number, id, what, text, onShown }: { number: string; id: string; what: string; text: string; onShown: (text: string) => void }) {
  const act = useAct();
  return (
    <Dialog title={what} className="w-[520px]" trigger={<Button>Show it once</Button>} onOpenChange={(open) => (open ? undefined : onShown(""))}>
      {text ? (
        <>
          <p className="mono break-all border border-rule p-3 text-action">{text}</p>
          <p className="mt-2">Write it down for the client now. Nothing of it is left here.</p>
        </>
      ) : (
        <>
          <p>It is shown once, to you, and then not kept any more. The log says who saw it.</p>
          <Button
            className="mt-3"
            tone="mark"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => showSecretAction({ number, id }),
                (said) => {
                  onShown(said);
                  return "";
                },
              )
            }
          >
            Show it
          </Button>
          <ActSaid act={act} />
        </>
      )}
    </Dialog>
  );
}

/** A sheet that asks for a few words. */
function Ask<K extends string>({
  word,
  title,
  note,
  fields,
  onDone,
}: {
  word: string;
  title: string;
  note: string;
  fields: readonly (readonly [K, string, string])[];
  onDone: (form: Record<K, string>) => ReturnType<typeof lendAction>;
}) {
  const act = useAct();
  const [open, setOpen] = useState(false);
  const empty = Object.fromEntries(fields.map(([id, , first]) => [id, first])) as Record<K, string>;
  const [form, setForm] = useState(empty);
  return (
    <Dialog
      open={open}
      onOpenChange={(to) => {
        if (to) setForm(empty);
        setOpen(to);
      }}
      title={title}
      className="w-[520px]"
      trigger={<Button>{word}</Button>}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => onDone(form),
            () => {
              setOpen(false);
              return "";
            },
          );
        }}
      >
        <p>{note}</p>
        {fields.map(([id, label]) => (
          <label key={id}>
            <span className="block text-second text-soft">{label}</span>
            <input
              className="field w-full"
              autoComplete="off"
              inputMode={id === "minutes" ? "numeric" : "text"}
              value={form[id]}
              maxLength={400}
              onChange={(e) => setForm((f) => ({ ...f, [id]: e.target.value }))}
            />
          </label>
        ))}
        <Button type="submit" tone="mark" className="self-start" disabled={act.pending}>
          Keep it
        </Button>
        <ActSaid act={act} />
      </form>
    </Dialog>
  );
}
