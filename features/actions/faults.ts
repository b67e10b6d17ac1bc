"use server";
import { closeFault } from "../../server/faults/close";
import { moveRight } from "../../server/faults/move";
import { tryOut } from "../../server/faults/try";
import { perform } from "../../server/unit/door";

export const closeFaultAction = async (input: unknown) => perform(closeFault, input);
export const tryActionAction = async (input: unknown) => perform(tryOut, input);
export const moveRightAction = async (input: unknown) => perform(moveRight, input);
