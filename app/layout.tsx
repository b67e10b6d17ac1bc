import type { Metadata, Viewport } from "next";
import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import { LanguageProvider } from "../features/frame/dates";
import { KeepFocus } from "../features/frame/keep-focus";
import { KeysProvider } from "../features/frame/keys";
import { languageOf } from "../features/frame/language";
import { LiveProvider } from "../features/frame/live";
import { OfflinePages } from "../features/frame/offline-pages";
import { Ready } from "../features/frame/ready";
import { OutboxProvider } from "../features/outbox/outbox";
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
  return (
    <html lang="en" data-theme={chosen === "dark" || chosen === "light" ? chosen : "system"}>
      <body>
        <LanguageProvider language={language}>
          <KeysProvider>
            <LiveProvider>
              <OutboxProvider>{children}</OutboxProvider>
            </LiveProvider>
          </KeysProvider>
          <KeepFocus />
        </LanguageProvider>
        <Ready />
        <OfflinePages />
      </body>
    </html>
  );
}
