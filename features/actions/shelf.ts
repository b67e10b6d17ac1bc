"use server";
import { mergeTypes } from "../../server/shelf/merge";
import { saveType } from "../../server/shelf/save";
import { takeShelfFile } from "../../server/shelf/shelf-file";
import { setStock } from "../../server/shelf/stock";
import { addTip, stillSo, withdrawTip } from "../../server/shelf/tips";
import { keepTaps } from "../../server/shelf/type-photo";
import { perform } from "../../server/unit/door";

export const saveTypeAction = async (input: unknown) => perform(saveType, input);
export const stockAction = async (input: unknown) => perform(setStock, input);
export const takeFileAction = async (input: unknown) => perform(takeShelfFile, input);
export const tipAction = async (input: unknown) => perform(addTip, input);
export const stillSoAction = async (input: unknown) => perform(stillSo, input);
export const withdrawTipAction = async (input: unknown) => perform(withdrawTip, input);
export const mergeAction = async (input: unknown) => perform(mergeTypes, input);
export const tapsAction = async (input: unknown) => perform(keepTaps, input);
