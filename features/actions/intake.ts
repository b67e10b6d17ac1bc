"use server";
import { newJob } from "../../server/job/make";
import { perform } from "../../server/unit/door";

export const newJobAction = async (input: unknown) => perform(newJob, input);
