"use server";
import { perform } from "../../server/kernel/door";
import { saveType } from "../../server/shelf/save";
import { search } from "../../server/shelf/search";
import { judgeShelfFile, takeShelfFile } from "../../server/shelf/shelf-file";
import { setStock } from "../../server/shelf/stock";

export const searchShelfAction = async (input: unknown) => perform(search, input);
export const saveTypeAction = async (input: unknown) => perform(saveType, input);
export const stockAction = async (input: unknown) => perform(setStock, input);
export const judgeFileAction = async (input: unknown) => perform(judgeShelfFile, input);
export const takeFileAction = async (input: unknown) => perform(takeShelfFile, input);
