"use server";
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { act } from "../../server/act";
import { type Result, yes } from "../../server/result";
import { SaveType, StockChange, saveType, searchShelf, setStock } from "../../server/shelf";
import { type FileRow, JudgeFile, judgeShelfFile, TakeFile, takeShelfFile } from "../../server/shelf-file";

const Search = z.object({ text: z.string().max(80), kind: z.string().max(30).optional() });

export const searchShelfAction = async (input: unknown): Promise<Result<Awaited<ReturnType<typeof searchShelf>>>> =>
  act(Search, input, async (em, _by, v) => yes(await searchShelf(em, v.text, v.kind)));

export async function saveTypeAction(input: unknown): Promise<Result<{ id: string; revision: number; jobs: string[] }>> {
  const r = await act(SaveType, input, saveType);
  if (r.ok) revalidatePath("/", "layout");
  return r;
}

export async function stockAction(input: unknown): Promise<Result> {
  const r = await act(StockChange, input, setStock);
  if (r.ok) revalidatePath("/shelf", "layout");
  return r;
}

export const judgeFileAction = async (input: unknown): Promise<Result<{ rows: FileRow[]; said: string[] }>> => act(JudgeFile, input, judgeShelfFile);

export async function takeFileAction(input: unknown): Promise<Result<{ made: number; corrected: number; stock: number; left: string[] }>> {
  const r = await act(TakeFile, input, takeShelfFile);
  if (r.ok) revalidatePath("/", "layout");
  return r;
}
