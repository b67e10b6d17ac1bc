import type { ReactNode } from "react";
import { Bar } from "../../features/frame/bar";
import { Refresh } from "../../features/frame/refresh";

export const dynamic = "force-dynamic";

export default function DeskLayout({ children }: { children: ReactNode }) {
  return (
    <div className="flex h-dvh min-h-[600px] flex-col overflow-hidden">
      <Bar />
      <Refresh />
      {children}
    </div>
  );
}
