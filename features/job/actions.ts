"use server";
import { setAside } from "../../server/job/set-aside";
import { perform } from "../../server/kernel/door";

export const setAsideAction = async (input: unknown) => perform(setAside, input);
