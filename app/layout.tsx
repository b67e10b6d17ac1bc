import type { Metadata, Viewport } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
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
  const theme = (await cookies()).get("theme")?.value === "dark" ? "dark" : "light";
  return (
    <html lang="en" data-theme={theme}>
      <body>
        <LiveProvider>
          <OutboxProvider>{children}</OutboxProvider>
        </LiveProvider>
        <Ready />
        <OfflinePages />
      </body>
    </html>
  );
}
