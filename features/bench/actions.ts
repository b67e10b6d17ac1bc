"use server";
import { plug } from "../../server/bench/plug";
import { perform } from "../../server/kernel/door";

export const plugAction = async (input: unknown) => perform(plug, input);
