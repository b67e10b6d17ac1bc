"use server";
import { saveType } from "../../server/shelf/save";
import { search } from "../../server/shelf/search";
import { judgeShelfFile, takeShelfFile } from "../../server/shelf/shelf-file";
import { setStock } from "../../server/shelf/stock";
import { perform } from "../../server/unit/door";

export const searchShelfAction = async (input: unknown) => perform(search, input);
export const saveTypeAction = async (input: unknown) => perform(saveType, input);
export const stockAction = async (input: unknown) => perform(setStock, input);
export const judgeFileAction = async (input: unknown) => perform(judgeShelfFile, input);
export const takeFileAction = async (input: unknown) => perform(takeShelfFile, input);
