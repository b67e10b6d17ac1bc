import type { ReactNode } from "react";
import { Palette } from "../../features/shell/palette";
import { may } from "../../server/kernel/actor";
import { whoIsIt } from "../../server/kernel/who";
import { toSignIn } from "../../server/unit/door";

/** The bench has the whole screen to itself; scans and the palette are heard there too. */
export default async function BenchLayout({ children }: { children: ReactNode }) {
  const who = await whoIsIt();
  if (!who) return toSignIn();
  return (
    <>
      {children}
      <Palette keepsPeople={may(who, "keep people")} bench />
    </>
  );
}
