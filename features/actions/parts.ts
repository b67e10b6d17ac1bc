"use server";
import { changeWishes } from "../../server/job/wishes";
import { addPart } from "../../server/parts/add";
import { changePart } from "../../server/parts/change";
import { confirmFigure } from "../../server/parts/confirm";
import { keepTrial } from "../../server/parts/keep-trial";
import { measurePart } from "../../server/parts/measure";
import { placePart } from "../../server/parts/place";
import { removePart } from "../../server/parts/remove";
import { perform } from "../../server/unit/door";

export const addPartAction = async (input: unknown) => perform(addPart, input);
export const removePartAction = async (input: unknown) => perform(removePart, input);
export const placePartAction = async (input: unknown) => perform(placePart, input);
export const measurePartAction = async (input: unknown) => perform(measurePart, input);
export const changePartAction = async (input: unknown) => perform(changePart, input);
export const confirmAction = async (input: unknown) => perform(confirmFigure, input);
export const wishesAction = async (input: unknown) => perform(changeWishes, input);
export const keepTrialAction = async (input: unknown) => perform(keepTrial, input);
