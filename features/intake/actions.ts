"use server";
import { revalidatePath } from "next/cache";
import { act } from "../../server/act";
import { type ListAnswer, NewJob, newJob, ReadRows, readRows } from "../../server/intake";
import type { Result } from "../../server/result";

export const readRowsAction = async (input: unknown): Promise<Result<ListAnswer>> => act(ReadRows, input, readRows);

export async function newJobAction(input: unknown): Promise<Result<string>> {
  const r = await act(NewJob, input, newJob);
  if (r.ok) revalidatePath("/", "layout");
  return r;
}
