"use server";
import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";
import { z } from "zod";
import { find } from "../../server/job/find";
import { perform } from "../../server/kernel/door";
import { failed } from "../../server/kernel/failed";
import { done, no, type Result } from "../../server/kernel/result";
import { sitDown } from "../../server/kernel/who";

export const findAction = async (input: unknown) => perform(find, input);

export async function sitDownAction(id: unknown): Promise<Result> {
  try {
    const parsed = z.uuid().safeParse(id);
    if (!parsed.success || !(await sitDown(parsed.data))) return no("That person is not in the list. Choose again.");
    revalidatePath("/", "layout");
    return done();
  } catch (e) {
    return failed(e);
  }
}

export async function themeAction(theme: unknown): Promise<void> {
  (await cookies()).set("theme", theme === "dark" ? "dark" : "light", { path: "/", sameSite: "lax", maxAge: 31_536_000 });
}
