"use server";
import { handOver, reopen } from "../../server/job/hand-over";
import { perform } from "../../server/kernel/door";

export const handOverAction = async (input: unknown) => perform(handOver, input);
export const reopenAction = async (input: unknown) => perform(reopen, input);
