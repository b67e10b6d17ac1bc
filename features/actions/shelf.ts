"use server";
import { saveType } from "../../server/shelf/save";
import { takeShelfFile } from "../../server/shelf/shelf-file";
import { setStock } from "../../server/shelf/stock";
import { perform } from "../../server/unit/door";

export const saveTypeAction = async (input: unknown) => perform(saveType, input);
export const stockAction = async (input: unknown) => perform(setStock, input);
export const takeFileAction = async (input: unknown) => perform(takeShelfFile, input);
