"use server";
import { cookies } from "next/headers";
import { find, scanned } from "../../server/job/find";
import { perform } from "../../server/kernel/door";

export const findAction = async (input: unknown) => perform(find, input);
export const scannedAction = async (input: unknown) => perform(scanned, input);

/** How this browser shows itself; nothing of the shop. */
export async function themeAction(theme: unknown): Promise<void> {
  const jar = await cookies();
  if (theme === "light" || theme === "dark") jar.set("theme", theme, { path: "/", sameSite: "lax", maxAge: 31_536_000 });
  else jar.delete("theme");
}
