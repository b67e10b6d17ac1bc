"use client";
import { useState } from "react";
import type { PeopleView, PersonView } from "../../server/people/views";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field, Select } from "../../ui/field";
import { addPersonAction, benchLockAction, changePersonAction, endSessionAction, newPasswordAction } from "../actions/people";
import { useDates } from "../frame/dates";
import { type Acting, useAct } from "../frame/use-act";
import { Sessions } from "./sessions";

const ROLE_WORDS = {
  lead: "lead: everything, people too",
  technician: "technician: plans, records, keeps the shelf",
  reader: "reader: looks, changes nothing",
} as const;

/** Who works here, what each may do, where they are signed in, and what was changed about it. */
export function PeopleScreen({ view }: { view: PeopleView }) {
  const act = useAct();
  const dates = useDates();
  const [minutes, setMinutes] = useState(String(view.benchLockMinutes));
  return (
    <main className="region min-h-0 flex-1">
      <div className="mx-auto flex max-w-[1200px] flex-col gap-6 p-6">
        <div className="flex flex-wrap items-center gap-4">
          <h1 className="flex-1 text-verdict font-semibold">People</h1>
          <AddPerson act={act} />
        </div>
        <p role="status" className="min-h-6 font-semibold">
          {[act.sentence, ...act.more].join(" ")}
        </p>
        {view.wrongTries.length > 0 ? (
          <section aria-label="Wrong tries" className="border-2 border-ink bg-sheet px-4 py-2">
            <h2 className="text-key font-[650]">Wrong tries within a day: ask whose they were</h2>
            <ul>
              {view.wrongTries.map((t) => (
                <li key={t.id}>
                  {t.text} <span className="text-second text-soft">{dates.both(t.at)}</span>
                </li>
              ))}
            </ul>
          </section>
        ) : null}
        <section aria-label="Who works here" className="overflow-x-auto">
          <table className="w-full text-left max-[700px]:block max-[700px]:[&_td]:block max-[700px]:[&_th]:block max-[700px]:[&_tr]:block max-[700px]:[&_tbody]:block">
            <thead className="text-second text-soft max-[700px]:sr-only">
              <tr>
                <th className="py-1 pr-4 font-normal">Name</th>
                <th className="py-1 pr-4 font-normal">Role</th>
                <th className="py-1 pr-4 font-normal">Signs in with</th>
                <th className="py-1 font-normal">
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {view.people.map((p) => (
                <Row key={p.id} person={p} act={act} />
              ))}
            </tbody>
          </table>
        </section>
        <div className="grid grid-cols-1 gap-8 lg:grid-cols-2">
          <section aria-label="Sign-ins">
            <h2 className="text-key font-[650]">Signed in now</h2>
            <Sessions
              list={view.sessions}
              names
              disabled={act.pending}
              onEnd={(s) =>
                act.run(
                  () => endSessionAction({ session: s.id }),
                  () => `The sign-in of ${s.name} at ${s.label} is ended.`,
                )
              }
            />
          </section>
          <div className="flex flex-col gap-6">
            <form
              className="flex flex-wrap items-end gap-3"
              onSubmit={(e) => {
                e.preventDefault();
                act.run(
                  () => benchLockAction({ minutes: Number(minutes), saw: { minutes: view.benchLockMinutes } }),
                  () => "That holds from the next entry on.",
                );
              }}
            >
              <Field
                word="A bench that nobody touches asks who it is after so many minutes; 0: never"
                type="number"
                min={0}
                max={480}
                value={minutes}
                onChange={(e) => setMinutes(e.target.value)}
                required
                className="w-full max-w-80"
              />
              <Button type="submit" disabled={act.pending}>
                Set it
              </Button>
            </form>
            <section aria-label="What was changed">
              <h2 className="text-key font-[650]">What was changed</h2>
              {view.log.length === 0 ? <p>Nothing yet.</p> : null}
              <ol>
                {view.log.map((e) => (
                  <li key={e.id} className="border-b border-b-rule py-1">
                    {e.text}{" "}
                    <span className="text-second text-soft">
                      {e.by}, {dates.both(e.at)}
                    </span>
                  </li>
                ))}
              </ol>
            </section>
          </div>
        </div>
      </div>
    </main>
  );
}

function Row({ person: p, act }: { person: PersonView; act: Acting }) {
  const saw = { role: p.role, active: p.active };
  return (
    <tr className="border-t border-t-rule">
      <th scope="row" className="py-2 pr-4 font-semibold">
        {p.name}
        {p.active ? "" : ", has left"}
      </th>
      <td className="py-2 pr-4">
        <select
          className="field"
          aria-label={`Role of ${p.name}`}
          value={p.role}
          disabled={act.pending}
          onChange={(e) => {
            const role = e.target.value;
            act.run(
              () => changePersonAction({ person: p.id, role, saw }),
              () => `${p.name} is a ${role} now.`,
            );
          }}
        >
          {Object.entries(ROLE_WORDS).map(([role, words]) => (
            <option key={role} value={role}>
              {words}
            </option>
          ))}
        </select>
      </td>
      <td className="py-2 pr-4">{p.hasPassword ? (p.hasPin ? "password, PIN at benches" : "password") : "nothing yet: set a password"}</td>
      <td className="py-2">
        <div className="flex justify-end gap-2 max-[700px]:justify-start">
          <NewPassword person={p} act={act} />
          <Button
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => changePersonAction({ person: p.id, active: !p.active, saw }),
                () => (p.active ? `${p.name} has left: signed out everywhere, and still named in the log.` : `${p.name} works here again.`),
              )
            }
          >
            {p.active ? "Has left" : "Came back"}
            <span className="sr-only">: {p.name}</span>
          </Button>
        </div>
      </td>
    </tr>
  );
}

function NewPassword({ person, act }: { person: PersonView; act: Acting }) {
  const [open, setOpen] = useState(false);
  const [password, setPassword] = useState("");
  return (
    <Dialog
      open={open}
      onOpenChange={(o) => {
        setOpen(o);
        setPassword("");
      }}
      title={`A new password for ${person.name}`}
      className="w-[480px]"
      trigger={
        <Button>
          New password<span className="sr-only"> for {person.name}</span>
        </Button>
      }
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => newPasswordAction({ person: person.id, password }),
            () => {
              setOpen(false);
              return `${person.name} signs in with the new password from now on, and sets a PIN anew.`;
            },
          );
        }}
      >
        <Field
          word="New password"
          hint="At least 8 characters. They change it under their own name. They are signed out everywhere."
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          maxLength={128}
          required
        />
        <p role="alert" className="min-h-6 font-semibold text-stop">
          {open ? act.sentence : ""}
        </p>
        <Button type="submit" tone="mark" disabled={act.pending} className="self-end">
          Set it
        </Button>
      </form>
    </Dialog>
  );
}

function AddPerson({ act }: { act: Acting }) {
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState({ name: "", role: "technician", password: "" });
  const set = (what: keyof typeof form) => (e: { target: { value: string } }) => setForm((f) => ({ ...f, [what]: e.target.value }));
  return (
    <Dialog open={open} onOpenChange={setOpen} title="Somebody new" className="w-[480px]" trigger={<Button tone="mark">Add somebody</Button>}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => addPersonAction(form),
            () => {
              setOpen(false);
              setForm({ name: "", role: "technician", password: "" });
              return `${form.name} can sign in now.`;
            },
          );
        }}
      >
        <Field word="Name" value={form.name} onChange={set("name")} autoComplete="off" maxLength={120} required />
        <Select word="Role" value={form.role} onChange={set("role")}>
          {Object.entries(ROLE_WORDS).map(([role, words]) => (
            <option key={role} value={role}>
              {words}
            </option>
          ))}
        </Select>
        <Field
          word="First password"
          hint="At least 8 characters. Tell it to them; they change it under their own name."
          type="password"
          autoComplete="new-password"
          value={form.password}
          onChange={set("password")}
          maxLength={128}
          required
        />
        <p role="alert" className="min-h-6 font-semibold text-stop">
          {open ? [act.sentence, ...act.more].join(" ") : ""}
        </p>
        <Button type="submit" tone="mark" disabled={act.pending} className="self-end">
          Add them
        </Button>
      </form>
    </Dialog>
  );
}
