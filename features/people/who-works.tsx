"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { DigitKeys } from "../../ui/digit-keys";
import { Field } from "../../ui/field";
import { takeOverAction } from "./actions";
import { SignInForm } from "./sign-in-form";
import { keepWorker, type Worker } from "./worker";

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
  const [byPassword, setByPassword] = useState(false);
  const router = useRouter();
  const done = ({ asOfMs, ...worker }: Worker & { asOfMs: number }) => {
    keepWorker(worker, asOfMs);
    setChosen(undefined);
    setByPassword(false);
    onIn();
    router.refresh();
  };
  const leave = () => {
    setChosen(undefined);
    setByPassword(false);
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
        <Proof
          person={chosen}
          byPassword={byPassword || !chosen.hasPin}
          onOther={() => setByPassword(true)}
          onBack={() => setChosen(undefined)}
          onDone={done}
        />
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

function Proof({
  person,
  byPassword,
  onOther,
  onBack,
  onDone,
}: {
  person: AtBench;
  byPassword: boolean;
  onOther: () => void;
  onBack: () => void;
  onDone: (worker: Worker & { asOfMs: number }) => void;
}) {
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
          bench
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
            bench
            word="PIN"
            type="password"
            inputMode="none"
            autoComplete="off"
            value={secret}
            onChange={(e) => setSecret(e.target.value.replace(/\D/g, "").slice(0, 8))}
            autoFocus
          />
          <DigitKeys value={secret} most={8} onChange={setSecret} />
        </div>
      )}
      <div className="flex min-w-64 flex-1 flex-col gap-3 pt-10">
        <Button bench type="submit" tone="mark" disabled={pending || secret === ""} className="min-h-28">
          {pending ? "Looking …" : "It is me"}
        </Button>
        <p role="alert" className="min-h-24 font-semibold text-stop">
          {sentence}
        </p>
        {byPassword ? null : (
          <Button bench onClick={onOther}>
            Password instead
          </Button>
        )}
        <Button bench onClick={onBack}>
          Somebody else
        </Button>
      </div>
    </form>
  );
}
