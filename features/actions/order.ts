"use server";
import { letGo, pullStep } from "../../server/order/pull";
import { perform } from "../../server/unit/door";

export const pullAction = async (input: unknown) => perform(pullStep, input);
export const letGoAction = async (input: unknown) => perform(letGo, input);
