"use server";
import { observe } from "../../server/first-boot/observe";
import { prove } from "../../server/first-boot/prove";
import { takeReport } from "../../server/first-boot/report";
import { setting } from "../../server/first-boot/setting";
import { setUp } from "../../server/first-boot/setup";
import { startSoak } from "../../server/first-boot/soak";
import { keepSoakLog } from "../../server/first-boot/soak-log";
import { perform } from "../../server/unit/door";

export const observeAction = async (input: unknown) => perform(observe, input);
export const settingAction = async (input: unknown) => perform(setting, input);
export const setUpAction = async (input: unknown) => perform(setUp, input);
export const proveAction = async (input: unknown) => perform(prove, input);
export const reportAction = async (input: unknown) => perform(takeReport, input);
export const soakAction = async (input: unknown) => perform(startSoak, input);
export const soakLogAction = async (input: unknown) => perform(keepSoakLog, input);
