"use server";
import { closeFault } from "../../server/faults/close";
import { tryOut } from "../../server/faults/try";
import { perform } from "../../server/unit/door";

export const closeFaultAction = async (input: unknown) => perform(closeFault, input);
export const tryActionAction = async (input: unknown) => perform(tryOut, input);
