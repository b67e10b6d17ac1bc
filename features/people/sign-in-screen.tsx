"use client";
import { SignInForm } from "../device/sign-in-form";

/** The first page of whoever is not signed in. */
export function SignInScreen({ to }: { to: string }) {
  return (
    <main className="mx-auto flex min-h-dvh w-full max-w-[420px] flex-col justify-center gap-5 p-6">
      <Mast />
      <h1 className="text-verdict font-semibold">Sign in</h1>
      <SignInForm
        onIn={() => {
          // The whole page anew: everything of it is of the person.
          window.location.assign(to);
        }}
      />
      <p className="text-second text-soft">No account, or the password forgotten: a lead adds you or sets a new one.</p>
    </main>
  );
}

export function Mast() {
  return (
    <p className="flex items-center gap-3 text-action font-[650]">
      <svg width="32" height="32" viewBox="0 0 32 32" aria-hidden>
        <path d="M4 9h10v14h10" fill="none" stroke="var(--ink)" strokeWidth="4" />
        <rect x="22" y="18" width="10" height="10" fill="var(--ink)" />
      </svg>
      Imbra
    </p>
  );
}
