"use server";
import { handOver } from "../../server/job/hand-over";
import { reopen } from "../../server/job/reopen";
import { perform } from "../../server/unit/door";

export const handOverAction = async (input: unknown) => perform(handOver, input);
export const reopenAction = async (input: unknown) => perform(reopen, input);
