import type { Metadata, Viewport } from "next";
import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import { OutboxProvider } from "../features/device/outbox";
import { LanguageProvider } from "../features/frame/dates";
import { KeepFocus } from "../features/frame/keep-focus";
import { KeysProvider } from "../features/frame/keys";
import { languageOf } from "../features/frame/language";
import { LiveProvider } from "../features/frame/live";
import { OfflinePages } from "../features/frame/offline-pages";
import { Ready } from "../features/frame/ready";
import { SlicesProvider } from "../features/frame/slices";
import { TurnWatch } from "../features/shell/turn-watch";
import { may } from "../server/kernel/actor";
import { seatHere } from "../server/kernel/who";
import { newsMark } from "../server/live/since";
import "./globals.css";

export const metadata: Metadata = {
  title: { default: "Imbra", template: "%s · Imbra" },
  description: "Plans, proves, orders and records the assembly of custom client PCs.",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const chosen = (await cookies()).get("theme")?.value;
  const h = await headers();
  const language = languageOf(h.get("accept-language"));
  // Before anything of the page is read.
  const since = await newsMark();
  // A database that is away is told by the page itself.
  const seat = await seatHere().catch(() => undefined);
  const turn = {
    worker: seat ? { id: seat.actor.id, name: seat.actor.name } : null,
    records: may(seat?.actor, "record"),
    asOfMs: Date.now(),
    lockMinutes: seat?.lockMinutes ?? 0,
  };
  return (
    <html lang="en" data-theme={chosen === "dark" || chosen === "light" ? chosen : "system"}>
      <body>
        <LanguageProvider language={language}>
          <KeysProvider>
            <SlicesProvider>
              <LiveProvider since={since}>
                <OutboxProvider>
                  <TurnWatch seat={turn}>{children}</TurnWatch>
                </OutboxProvider>
                <OfflinePages />
              </LiveProvider>
            </SlicesProvider>
          </KeysProvider>
          <KeepFocus />
        </LanguageProvider>
        <Ready />
      </body>
    </html>
  );
}
