"use server";
import { letGo, pullStep } from "../../server/order/pull";
import { changeSchools } from "../../server/schools/follow";
import { perform } from "../../server/unit/door";

export const pullAction = async (input: unknown) => perform(pullStep, input);
export const letGoAction = async (input: unknown) => perform(letGo, input);
export const workSchoolsAction = async (input: unknown) => perform(changeSchools, input);
