"use server";
import { changeSchools } from "../../server/schools/follow";
import { perform } from "../../server/unit/door";

export const schoolsAction = async (input: unknown) => perform(changeSchools, input);
