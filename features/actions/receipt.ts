"use server";
import { benchTest } from "../../server/receipt/bench-test";
import { receive } from "../../server/receipt/receive";
import { refuse } from "../../server/receipt/refuse";
import { replacementCame } from "../../server/receipt/replacement";
import { perform } from "../../server/unit/door";

export const receiveAction = async (input: unknown) => perform(receive, input);
export const benchTestAction = async (input: unknown) => perform(benchTest, input);
export const refuseAction = async (input: unknown) => perform(refuse, input);
export const replacementAction = async (input: unknown) => perform(replacementCame, input);
