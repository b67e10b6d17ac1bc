"use server";
import { setClientPage } from "../../server/handover/client-page";
import { comeBack } from "../../server/handover/come-back";
import { handOver } from "../../server/handover/hand-over";
import { prepare } from "../../server/handover/prepare";
import { reopen } from "../../server/handover/reopen";
import { perform } from "../../server/unit/door";

export const handOverAction = async (input: unknown) => perform(handOver, input);
export const prepareAction = async (input: unknown) => perform(prepare, input);
export const reopenAction = async (input: unknown) => perform(reopen, input);
export const comeBackAction = async (input: unknown) => perform(comeBack, input);
export const clientPageAction = async (input: unknown) => perform(setClientPage, input);
