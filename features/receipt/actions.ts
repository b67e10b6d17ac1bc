"use server";
import { perform } from "../../server/kernel/door";
import { benchTest } from "../../server/receipt/bench-test";
import { receive } from "../../server/receipt/receive";
import { replacementCame } from "../../server/receipt/replacement";

export const receiveAction = async (input: unknown, entry?: unknown) => perform(receive, input, entry);
export const benchTestAction = async (input: unknown, entry?: unknown) => perform(benchTest, input, entry);
export const replacementAction = async (input: unknown) => perform(replacementCame, input);
