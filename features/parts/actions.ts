"use server";
import { changeWishes } from "../../server/job/wishes";
import { perform } from "../../server/kernel/door";
import { addPart } from "../../server/parts/add";
import { changePart } from "../../server/parts/change";
import { keepTrial } from "../../server/parts/keep-trial";
import { placePart } from "../../server/parts/place";
import { removePart } from "../../server/parts/remove";
import { alternativesFor, tryWiring } from "../../server/parts/what-if";

export const addPartAction = async (input: unknown) => perform(addPart, input);
export const removePartAction = async (input: unknown) => perform(removePart, input);
export const placePartAction = async (input: unknown) => perform(placePart, input);
export const changePartAction = async (input: unknown) => perform(changePart, input);
export const wishesAction = async (input: unknown) => perform(changeWishes, input);
export const alternativesAction = async (input: unknown) => perform(alternativesFor, input);
export const tryWiringAction = async (input: unknown) => perform(tryWiring, input);
export const keepTrialAction = async (input: unknown) => perform(keepTrial, input);
