"use client";
import { useState } from "react";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { SignInForm } from "../device/sign-in-form";
import { useDates } from "../frame/dates";
import { useLive } from "../frame/live";

/** One line while the screen hears nothing from the server. */
export function AloneLine() {
  const { aloneSince, signedOut } = useLive();
  const dates = useDates();
  return (
    <div role="status" aria-live="polite">
      {signedOut ? <SignedOut /> : null}
      {aloneSince === undefined || signedOut ? null : (
        <p className="flex min-h-10 items-center border-b-2 border-ink bg-sheet px-4 py-1">
          No answer from the server since {dates.clock(aloneSince)}. What you see is as it was then. It catches up by itself.
        </p>
      )}
    </div>
  );
}

/** The sign-in was ended elsewhere: the page stays, and whatever is half typed on it. */
function SignedOut() {
  const { signedIn } = useLive();
  const [open, setOpen] = useState(false);
  return (
    <div className="flex min-h-10 flex-wrap items-center gap-4 border-b-2 border-ink bg-sheet px-4 py-1">
      <p className="flex-1">You are not signed in any more. What you see and have typed stays; sign in to go on.</p>
      <Dialog open={open} onOpenChange={setOpen} title="Sign in" className="w-[420px]" trigger={<Button>Sign in</Button>}>
        <SignInForm
          onIn={() => {
            setOpen(false);
            signedIn();
          }}
        />
      </Dialog>
    </div>
  );
}
