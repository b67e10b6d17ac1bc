"use server";
import { anotherCable } from "../../server/bench/another-cable";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/entries/take-back";
import { perform } from "../../server/unit/door";

export const anotherCableAction = async (input: unknown) => perform(anotherCable, input);
export const takeBackAction = async (input: unknown) => perform(takeBack, input);
export const plugAction = async (input: unknown) => perform(plug, input);
