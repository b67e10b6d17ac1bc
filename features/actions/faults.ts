"use server";
import { actOn } from "../../server/faults/act";
import { closeFault } from "../../server/faults/close";
import { moveRight } from "../../server/faults/move";
import { perform } from "../../server/unit/door";

export const closeFaultAction = async (input: unknown) => perform(closeFault, input);
export const actOnFaultAction = async (input: unknown) => perform(actOn, input);
export const moveRightAction = async (input: unknown) => perform(moveRight, input);
