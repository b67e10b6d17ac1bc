"use server";
import { observe } from "../../server/faults/observe";
import { setting } from "../../server/job/setting";
import { startSoak } from "../../server/job/soak";
import { perform } from "../../server/kernel/door";

export const observeAction = async (input: unknown) => perform(observe, input);
export const settingAction = async (input: unknown) => perform(setting, input);
export const soakAction = async (input: unknown) => perform(startSoak, input);
