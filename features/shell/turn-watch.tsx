"use client";
import { usePathname, useRouter } from "next/navigation";
import { createContext, type ReactNode, useContext, useEffect, useRef, useState } from "react";
import type { NowAt } from "../../server/people/sign-in";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { forgetPages } from "../device/forget-pages";
import { SignInForm } from "../device/sign-in-form";
import { Proof } from "../device/who-works";
import { ENTRANCES } from "../frame/steady-fetch";
import { dropTurn, isLocked, keepTurn, knowsTurn, leaveDevice, useUntouched, useWorker, type Worker } from "../frame/worker";

/** A device that is touched says so no more often than this, and in time for the shortest lock. */
const BEAT_MS = 60_000;
const AGAIN_MS = 5000;

/** Pages at which hands work: they stay as they are when nobody is there, and hold nothing that is for a lead alone. */
const AT_HAND = /^\/job\/[^/]+\/(bench|receipt)$/;

/** Asks the server whose turn it is here. */
async function askTurn(touched: boolean): Promise<void> {
  const r = await fetch(`/live/turn${touched ? "?touched=1" : ""}`, { method: "POST", cache: "no-store", signal: AbortSignal.timeout(4000) });
  if (r.status === 200) keepTurn((await r.json()) as NowAt);
  if (r.status === 401) dropTurn();
  if (r.status === 423) {
    leaveDevice();
    dropTurn();
  }
}

/**
 * Knows whose turn it is at this device, from whatever page is open, and tells the server that somebody is there while it is touched. A
 * page of somebody else's is not shown to who came after, and a desk that was left alone asks who is there before anything is changed.
 */
export function TurnWatch({
  seat,
  children,
}: {
  seat: { worker: Worker | null; records: boolean; asOfMs: number; lockMinutes: number };
  children: ReactNode;
}) {
  const path = usePathname();
  const away = ENTRANCES.includes(path);
  const signedIn = seat.worker !== null;
  const who = useWorker(seat.worker, seat.asOfMs);
  const { locked, touch } = useUntouched(signedIn ? seat.lockMinutes : -1);
  const id = who?.id;
  useEffect(() => {
    if (away || !signedIn || id === undefined) return;
    let busy = false;
    const look = () => {
      if (busy || knowsTurn() || isLocked() || !navigator.onLine) return;
      busy = true;
      askTurn(false)
        .catch(() => undefined)
        .finally(() => {
          busy = false;
        });
    };
    look();
    const timer = setInterval(look, AGAIN_MS);
    window.addEventListener("online", look);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", look);
    };
  }, [away, signedIn, id]);
  const beaten = useRef(Date.now());
  useEffect(() => {
    if (away || !signedIn) return;
    const beat = () => {
      if (Date.now() - beaten.current < BEAT_MS || isLocked() || !navigator.onLine) return;
      beaten.current = Date.now();
      askTurn(true).catch(() => undefined);
    };
    window.addEventListener("pointerdown", beat);
    window.addEventListener("keydown", beat);
    return () => {
      window.removeEventListener("pointerdown", beat);
      window.removeEventListener("keydown", beat);
    };
  }, [away, signedIn]);
  // Somebody else works here now, said in another tab: what this one shows was made for who was before.
  const made = useRef(seat.worker?.id);
  useEffect(() => {
    if (made.current !== undefined && id !== undefined && id !== made.current && !AT_HAND.test(path)) window.location.reload();
    made.current = seat.worker?.id;
  }, [id, path, seat.worker?.id]);
  // Left alone, it keeps no page that is not for everybody's hands.
  useEffect(() => {
    if (locked) void forgetPages((page) => AT_HAND.test(page));
  }, [locked]);
  const asks = locked && !away && who ? { who, byPin: seat.records, minutes: seat.lockMinutes, onIn: touch } : undefined;
  return <Alone.Provider value={asks}>{children}</Alone.Provider>;
}

/** Who was here before everybody left, for how long nobody was, and what is to be done once somebody is; undefined while somebody is here. */
const Alone = createContext<Left | undefined>(undefined);
interface Left {
  who: Worker;
  /** A PIN is for those who record. */
  byPin: boolean;
  minutes: number;
  onIn: () => void;
}

/** At a desk that was left alone: one line, and whoever was here says that they are. */
export function LeftAlone() {
  const alone = useContext(Alone);
  return alone ? <WhoIsHere {...alone} /> : null;
}

function WhoIsHere({ who, byPin, minutes, onIn }: Left) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [other, setOther] = useState(!byPin);
  const back = () => {
    onIn();
    setOpen(false);
    router.refresh();
  };
  return (
    <div role="status" className="flex min-h-10 flex-wrap items-center gap-4 border-b-2 border-ink bg-sheet px-4 py-1">
      <p className="flex-1">Nobody was here for {minutes} minutes. Say who you are before you change anything.</p>
      <Dialog
        open={open}
        onOpenChange={(o) => {
          setOpen(o);
          setOther(!byPin);
        }}
        title={other ? "Sign in" : who.name}
        className="w-[480px]"
        trigger={<Button>Who is here?</Button>}
      >
        {other ? (
          <SignInForm name={byPin ? "" : who.name} onIn={back} />
        ) : (
          <Proof
            person={{ ...who, hasPin: true }}
            onBack={() => setOther(true)}
            onDone={(now) => {
              keepTurn(now);
              back();
            }}
          />
        )}
      </Dialog>
    </div>
  );
}
