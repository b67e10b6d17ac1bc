"use server";
import { canNow, compare, tryPull, undoStep } from "../../server/order/ask";
import { letGo, pullStep } from "../../server/order/pull";
import { changeSchools } from "../../server/schools/follow";
import { perform } from "../../server/unit/door";

export const undoAction = async (input: unknown) => perform(undoStep, input);
export const tryPullAction = async (input: unknown) => perform(tryPull, input);
export const pullAction = async (input: unknown) => perform(pullStep, input);
export const letGoAction = async (input: unknown) => perform(letGo, input);
export const compareAction = async (input: unknown) => perform(compare, input);
export const canNowAction = async (input: unknown) => perform(canNow, input);
export const workSchoolsAction = async (input: unknown) => perform(changeSchools, input);
