"use client";
import { useState, useTransition } from "react";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { signInAction } from "../actions/people";
import { keepTurn, touchDevice } from "../frame/worker";
import { forgetPages } from "./forget-pages";

/** Name and password. What was typed stays where it was refused. */
export function SignInForm({ onIn, bench = false, name: first = "" }: { onIn: () => void; bench?: boolean; name?: string }) {
  const [name, setName] = useState(first);
  const [password, setPassword] = useState("");
  const [sentence, setSentence] = useState("");
  const [pending, start] = useTransition();
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        start(async () => {
          const r = await signInAction({ name, password }).catch(() => undefined);
          if (r?.ok) {
            setSentence("");
            // A bench that nobody touched since yesterday is theirs now.
            touchDevice();
            await forgetPages();
            keepTurn(r.value);
            onIn();
          } else setSentence(r ? [r.sentence, ...(r.more ?? [])].join(" ") : "No answer from the server. Check the network and try again.");
        });
      }}
    >
      <Field
        word="Name"
        bench={bench}
        value={name}
        onChange={(e) => setName(e.target.value)}
        autoComplete="username"
        maxLength={120}
        required
        autoFocus={!first}
      />
      <Field
        word="Password"
        type="password"
        bench={bench}
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        autoComplete="current-password"
        maxLength={128}
        required
        autoFocus={Boolean(first)}
      />
      <p role="alert" className="min-h-6 font-semibold text-stop">
        {sentence}
      </p>
      <Button type="submit" tone="mark" bench={bench} disabled={pending} className="self-end">
        {pending ? "Looking …" : "Sign in"}
      </Button>
    </form>
  );
}
