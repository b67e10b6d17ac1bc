"use server";
import { observe } from "../../server/first-boot/observe";
import { setting } from "../../server/first-boot/setting";
import { startSoak } from "../../server/first-boot/soak";
import { keepSoakLog } from "../../server/first-boot/soak-log";
import { perform } from "../../server/unit/door";

export const observeAction = async (input: unknown) => perform(observe, input);
export const settingAction = async (input: unknown) => perform(setting, input);
export const soakAction = async (input: unknown) => perform(startSoak, input);
export const soakLogAction = async (input: unknown) => perform(keepSoakLog, input);
