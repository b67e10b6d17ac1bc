"use server";
import { newJob } from "../../server/job/make";
import { readRows } from "../../server/job/read-list";
import { perform } from "../../server/unit/door";

export const readRowsAction = async (input: unknown) => perform(readRows, input);
export const newJobAction = async (input: unknown) => perform(newJob, input);
