"use client";
import { useState } from "react";
import type { OwnView } from "../../server/people/views";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { endSessionAction, ownPasswordAction, ownPinAction } from "../actions/people";
import { type Acting, useAct } from "../frame/use-act";
import { Sessions } from "./sessions";

/** One's own password, PIN and sign-ins. */
export function YouScreen({ view }: { view: OwnView }) {
  const act = useAct();
  const { person } = view;
  return (
    <main className="region min-h-0 flex-1">
      <div className="mx-auto flex max-w-[1080px] flex-col gap-6 p-6">
        <h1 className="text-verdict font-semibold">
          {person.name}, {person.role}
        </h1>
        <p role="status" className="min-h-6 font-semibold">
          {[act.sentence, ...act.more].join(" ")}
        </p>
        <div className="grid grid-cols-1 gap-8 md:grid-cols-2">
          <OwnPassword act={act} />
          {person.role === "reader" ? null : <OwnPin act={act} hasPin={person.hasPin} />}
        </div>
        <section aria-label="Where you are signed in">
          <h2 className="text-key font-[650]">Where you are signed in</h2>
          <Sessions
            list={view.sessions}
            names={false}
            disabled={act.pending}
            onEnd={(s) =>
              act.run(
                () => endSessionAction({ session: s.id }),
                () => `The sign-in at ${s.label} is ended.`,
              )
            }
          />
        </section>
      </div>
    </main>
  );
}

function OwnPassword({ act }: { act: Acting }) {
  const [before, setBefore] = useState("");
  const [password, setPassword] = useState("");
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () => ownPasswordAction({ before, password }),
          () => {
            setBefore("");
            setPassword("");
            return "Your password is the new one. Wherever else you were signed in, you are not any more.";
          },
        );
      }}
    >
      <h2 className="text-key font-[650]">A new password</h2>
      <Field
        word="Password as it is"
        type="password"
        autoComplete="current-password"
        value={before}
        onChange={(e) => setBefore(e.target.value)}
        maxLength={128}
        required
      />
      <Field
        word="New password"
        hint="At least 8 characters. Several words in a row are easy to keep."
        type="password"
        autoComplete="new-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        maxLength={128}
        required
      />
      <Button type="submit" disabled={act.pending} className="self-start">
        Change the password
      </Button>
    </form>
  );
}

function OwnPin({ act, hasPin }: { act: Acting; hasPin: boolean }) {
  const [password, setPassword] = useState("");
  const [pin, setPin] = useState("");
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () => ownPinAction({ password, pin }),
          () => {
            setPassword("");
            setPin("");
            return "Your PIN is set. At a bench, press the name on top, then your own.";
          },
        );
      }}
    >
      <h2 className="text-key font-[650]">{hasPin ? "Another PIN for the benches" : "A PIN for the benches"}</h2>
      <Field
        word="Your password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        maxLength={128}
        required
      />
      <Field
        word="PIN"
        hint="Four to eight digits, not in a row."
        type="password"
        inputMode="numeric"
        autoComplete="off"
        value={pin}
        onChange={(e) => setPin(e.target.value)}
        maxLength={8}
        required
      />
      <Button type="submit" disabled={act.pending} className="self-start">
        Set the PIN
      </Button>
    </form>
  );
}
