"use server";
import { jobFromFile } from "../../server/job/from-file";
import { perform } from "../../server/unit/door";

export const importAction = async (input: unknown) => perform(jobFromFile, input);
