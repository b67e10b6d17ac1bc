"use server";
import { nameColumn } from "../../server/first-boot/name-column";
import { letMachineIn, shutMachineOut } from "../../server/machine/let-in";
import { beginSimulated, endSimulated, huntSimulated, onSimulated, readSimulated } from "../../server/machine/simulated";
import { keepStream } from "../../server/machine/stream";
import { perform } from "../../server/unit/door";

export const letMachineInAction = async (input: unknown) => perform(letMachineIn, input);
export const shutMachineOutAction = async (input: unknown) => perform(shutMachineOut, input);
export const keepStreamAction = async (input: unknown) => perform(keepStream, input);
export const nameColumnAction = async (input: unknown) => perform(nameColumn, input);
export const beginSimulatedAction = async (input: unknown) => perform(beginSimulated, input);
export const onSimulatedAction = async (input: unknown) => perform(onSimulated, input);
export const readSimulatedAction = async (input: unknown) => perform(readSimulated, input);
export const endSimulatedAction = async (input: unknown) => perform(endSimulated, input);
export const huntSimulatedAction = async (input: unknown) => perform(huntSimulated, input);
