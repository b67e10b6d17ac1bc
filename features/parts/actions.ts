"use server";
import { revalidatePath } from "next/cache";
import { act } from "../../server/act";
import { AddPart, addPart, changeWishes, PlacePart, placePart, RemovePart, removePart, WishesChange } from "../../server/parts";
import { BenchTest, benchTest, Receive, Replacement, receive, replacementCame } from "../../server/receipt";
import type { Result } from "../../server/result";
import { type AlternativeRow, Alternatives, alternativesFor, KeepTrial, keepTrial, TryWiring, tryWiring } from "../../server/what-if";

function fresh<T>(result: Result<T>): Result<T> {
  if (result.ok) revalidatePath("/", "layout");
  return result;
}

export const addPartAction = async (input: unknown) => fresh(await act(AddPart, input, addPart));
export const removePartAction = async (input: unknown) => fresh(await act(RemovePart, input, removePart));
export const placePartAction = async (input: unknown) => fresh(await act(PlacePart, input, placePart));
export const wishesAction = async (input: unknown) => fresh(await act(WishesChange, input, changeWishes));
export const receiveAction = async (input: unknown) => fresh(await act(Receive, input, receive));
export const benchTestAction = async (input: unknown) => fresh(await act(BenchTest, input, benchTest));
export const replacementAction = async (input: unknown) => fresh(await act(Replacement, input, replacementCame));
export const alternativesAction = async (input: unknown): Promise<Result<AlternativeRow[]>> => act(Alternatives, input, alternativesFor);
export const tryWiringAction = async (input: unknown) => act(TryWiring, input, (em, by, t) => tryWiring(em, by, t));
export const keepTrialAction = async (input: unknown) => fresh(await act(KeepTrial, input, keepTrial));
