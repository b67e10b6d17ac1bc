"use server";
import { plug } from "../../server/bench/plug";
import { takeBack } from "../../server/entries/take-back";
import { undoStep } from "../../server/order/ask";
import { search } from "../../server/shelf/search";
import { perform } from "../../server/unit/door";

export const takeBackAction = async (input: unknown) => perform(takeBack, input);
export const undoCostAction = async (input: unknown) => perform(undoStep, input);
export const shelfWordsAction = async (input: unknown) => perform(search, input);
export const plugAction = async (input: unknown) => perform(plug, input);
