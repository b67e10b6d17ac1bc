"use server";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/bench/take-back";
import { perform } from "../../server/kernel/door";
import { undoStep } from "../../server/order/ask";

export const takeBackAction = async (input: unknown) => perform(takeBack, input);
export const undoCostAction = async (input: unknown) => perform(undoStep, input);
export const plugAction = async (input: unknown) => perform(plug, input);
