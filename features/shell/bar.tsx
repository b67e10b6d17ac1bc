import { may } from "../../server/kernel/actor";
import { whoIsIt } from "../../server/kernel/who";
import { toSignIn } from "../../server/unit/door";
import Link from "../../ui/link";
import { ThemeKey } from "../frame/theme-key";
import { Palette } from "./palette";
import { PersonMenu } from "./person-menu";

export async function Bar() {
  const who = await whoIsIt();
  if (!who) return toSignIn();
  return (
    <header className="flex h-11 shrink-0 items-center gap-2 border-b border-rule px-3 min-[900px]:gap-4 min-[900px]:px-4">
      <Link href="/" className="flex items-center gap-2 text-key font-[650] no-underline" aria-label="Imbra, benches">
        <svg width="22" height="22" viewBox="0 0 32 32" aria-hidden>
          <path d="M4 9h10v14h10" fill="none" stroke="var(--ink)" strokeWidth="4" />
          <rect x="22" y="18" width="10" height="10" fill="var(--ink)" />
        </svg>
        <span className="max-[480px]:hidden">Imbra</span>
      </Link>
      <nav aria-label="Workshop" className="flex gap-3 max-[420px]:gap-2">
        <Link className="underline-offset-4 hover:underline" href="/">
          Benches
        </Link>
        <Link className="underline-offset-4 hover:underline" href="/shelf">
          Shelf
        </Link>
      </nav>
      <div className="flex-1" />
      <Palette keepsPeople={may(who, "keep people")} />
      <ThemeKey />
      <PersonMenu name={who.name} keepsPeople={may(who, "keep people")} />
    </header>
  );
}
