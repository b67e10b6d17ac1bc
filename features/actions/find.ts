"use server";
import { find, scanned } from "../../server/job/find";
import { perform } from "../../server/unit/door";

export const findAction = async (input: unknown) => perform(find, input);
export const scannedAction = async (input: unknown) => perform(scanned, input);
