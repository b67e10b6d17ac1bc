"use server";
import { actOn } from "../../server/faults/act";
import { anotherModel } from "../../server/faults/another-model";
import { closeFault } from "../../server/faults/close";
import { moveRight } from "../../server/faults/move";
import { perform } from "../../server/unit/door";

export const closeFaultAction = async (input: unknown) => perform(closeFault, input);
export const actOnFaultAction = async (input: unknown) => perform(actOn, input);
export const anotherModelAction = async (input: unknown) => perform(anotherModel, input);
export const moveRightAction = async (input: unknown) => perform(moveRight, input);
