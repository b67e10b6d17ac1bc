"use server";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/entries/take-back";
import { perform } from "../../server/unit/door";

export const takeBackAction = async (input: unknown) => perform(takeBack, input);
export const plugAction = async (input: unknown) => perform(plug, input);
