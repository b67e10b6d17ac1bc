"use client";
import { useState, useTransition } from "react";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { firstLeadAction } from "../actions/people";
import { Mast } from "./sign-in-screen";

/** A shop without a lead: its first one makes an account. */
export function FirstLeadScreen() {
  const [form, setForm] = useState({ code: "", name: "", password: "", again: "" });
  const [sentence, setSentence] = useState("");
  const [pending, start] = useTransition();
  const set = (what: keyof typeof form) => (e: { target: { value: string } }) => setForm((f) => ({ ...f, [what]: e.target.value }));
  return (
    <main className="mx-auto flex min-h-dvh w-full max-w-[480px] flex-col justify-center gap-5 p-6">
      <Mast />
      <h1 className="text-verdict font-semibold">The first lead of this shop</h1>
      <p>Nobody can sign in yet. Make the first account: it can do everything, and adds all others.</p>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          if (form.password !== form.again) {
            setSentence("The two passwords are not the same. Type them again.");
            return;
          }
          start(async () => {
            const r = await firstLeadAction({ code: form.code, name: form.name, password: form.password }).catch(() => undefined);
            if (r?.ok) window.location.assign("/");
            else setSentence(r ? [r.sentence, ...(r.more ?? [])].join(" ") : "No answer from the server. Check the network and try again.");
          });
        }}
      >
        <Field
          word="Set-up code"
          hint="The server printed it when it started."
          value={form.code}
          onChange={set("code")}
          maxLength={40}
          required
          autoFocus
        />
        <Field word="Your name" value={form.name} onChange={set("name")} autoComplete="username" maxLength={120} required />
        <Field
          word="Password"
          type="password"
          hint="At least 8 characters. Several words in a row are easy to keep."
          value={form.password}
          onChange={set("password")}
          autoComplete="new-password"
          maxLength={128}
          required
        />
        <Field
          word="The same again"
          type="password"
          value={form.again}
          onChange={set("again")}
          autoComplete="new-password"
          maxLength={128}
          required
        />
        <p role="alert" className="min-h-6 font-semibold text-stop">
          {sentence}
        </p>
        <Button type="submit" tone="mark" disabled={pending} className="self-end">
          Make the account
        </Button>
      </form>
    </main>
  );
}
