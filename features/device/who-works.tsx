"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import type { NowAt } from "../../server/people/sign-in";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { DigitKeys } from "../../ui/digit-keys";
import { Field } from "../../ui/field";
import { takeOverAction } from "../actions/people";
import { keepTurn, type Worker } from "../frame/worker";
import { forgetPages } from "./forget-pages";
import { SignInForm } from "./sign-in-form";

export interface AtBench extends Worker {
  hasPin: boolean;
}

const PING_MS = 4000;
const NO_ANSWER = "No network: a change of person needs the server. What you press is kept on this tablet, and asks for its person then.";

/** A change of person at a bench: a key for everybody, then a PIN on keys as large. */
export function WhoWorks({
  open,
  close,
  people,
  who,
  signedIn,
  onIn,
  because,
}: {
  open: boolean;
  close: () => void;
  people: readonly AtBench[];
  who: Worker | null;
  /** Somebody has signed in at this device with a password. */
  signedIn: boolean;
  /** Somebody has said who they are. */
  onIn: () => void;
  because?: string;
}) {
  const [chosen, setChosen] = useState<AtBench | undefined>();
  const router = useRouter();
  const done = async (now: NowAt) => {
    // What was kept for who was here before is not for who comes.
    if (now.id !== who?.id) await forgetPages();
    keepTurn(now);
    setChosen(undefined);
    onIn();
    router.refresh();
  };
  const leave = () => {
    setChosen(undefined);
    close();
  };
  return (
    <Dialog
      bench
      open={open}
      onOpenChange={(o) => !o && leave()}
      title={chosen ? chosen.name : signedIn ? "Who works here?" : "Sign in at this tablet"}
    >
      {because ? <p>{because}</p> : null}
      {!signedIn ? (
        <SignInForm
          bench
          name={who?.name ?? ""}
          onIn={() => {
            onIn();
            router.refresh();
          }}
        />
      ) : chosen ? (
        <Proof person={chosen} bench onBack={() => setChosen(undefined)} onDone={(now) => void done(now)} />
      ) : (
        <ul className="flex flex-wrap gap-3" aria-label="People">
          {people.map((p) => (
            <li key={p.id}>
              <Button
                bench
                aria-current={p.id === who?.id ? "true" : undefined}
                className={p.id === who?.id ? "border-ink" : ""}
                onClick={() => setChosen(p)}
              >
                {p.name}
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}

/** Somebody proves by PIN, or by their password, that they are there. */
export function Proof({
  person,
  bench = false,
  onBack,
  onDone,
}: {
  person: AtBench;
  bench?: boolean;
  onBack: () => void;
  onDone: (now: NowAt) => void;
}) {
  const [asked, setByPassword] = useState(false);
  const byPassword = asked || !person.hasPin;
  const [secret, setSecret] = useState("");
  const [sentence, setSentence] = useState("");
  const [pending, start] = useTransition();
  const send = (what: string) =>
    start(async () => {
      // Offline the framework would keep the action until there is a network, and then somebody else would sit here.
      const there = await fetch("/live/ping", { cache: "no-store", signal: AbortSignal.timeout(PING_MS) }).catch(() => undefined);
      if (!there) {
        setSecret("");
        setSentence(NO_ANSWER);
        return;
      }
      const r = await takeOverAction({ person: person.id, secret: what, by: byPassword ? "password" : "pin" }).catch(() => undefined);
      if (r?.ok) onDone(r.value);
      else {
        setSecret("");
        setSentence(r?.sentence ?? NO_ANSWER);
      }
    });
  return (
    <form
      className="flex flex-wrap gap-x-8 gap-y-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (secret) send(secret);
      }}
    >
      {byPassword ? (
        <Field
          bench={bench}
          word="Password"
          type="password"
          autoComplete="off"
          value={secret}
          onChange={(e) => setSecret(e.target.value)}
          maxLength={128}
          autoFocus
        />
      ) : (
        <div className="flex w-full max-w-[420px] flex-col gap-4">
          <Field
            bench={bench}
            word="PIN"
            type="password"
            inputMode={bench ? "none" : "numeric"}
            autoComplete="off"
            value={secret}
            onChange={(e) => setSecret(e.target.value.replace(/\D/g, "").slice(0, 8))}
            autoFocus
          />
          {bench ? <DigitKeys value={secret} most={8} onChange={setSecret} /> : null}
        </div>
      )}
      <div className={bench ? "flex min-w-64 flex-1 flex-col gap-3 pt-10" : "flex w-full flex-col gap-3"}>
        <Button bench={bench} type="submit" tone="mark" disabled={pending || secret === ""} className={bench ? "min-h-28" : ""}>
          {pending ? "Looking …" : "It is me"}
        </Button>
        <p role="alert" className={`${bench ? "min-h-24" : "min-h-6"} font-semibold text-stop`}>
          {sentence}
        </p>
        {byPassword ? null : (
          <Button bench={bench} onClick={() => setByPassword(true)}>
            Password instead
          </Button>
        )}
        <Button bench={bench} onClick={onBack}>
          Somebody else
        </Button>
      </div>
    </form>
  );
}
