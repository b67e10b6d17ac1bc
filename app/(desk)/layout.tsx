import type { ReactNode } from "react";
import { AloneLine } from "../../features/shell/alone-line";
import { Bar } from "../../features/shell/bar";
import { LeftAlone } from "../../features/shell/turn-watch";

export const dynamic = "force-dynamic";

export default function DeskLayout({ children }: { children: ReactNode }) {
  return (
    <div className="flex h-dvh min-h-[600px] flex-col overflow-hidden max-[1080px]:min-h-[740px] max-[700px]:h-auto max-[700px]:min-h-dvh max-[700px]:overflow-visible">
      <Bar />
      <AloneLine />
      <LeftAlone />
      {children}
    </div>
  );
}
