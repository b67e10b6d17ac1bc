"use server";
import { changeSchools } from "../../server/job/schools";
import { perform } from "../../server/kernel/door";
import { orderMore } from "../../server/parts/order-more";
import { fix } from "../../server/plan/fix";
import { placeCostsHere } from "../../server/plan/places";
import { planChanges } from "../../server/plan/plan-changes";
import { takeConnections } from "../../server/plan/take-connections";
import { planNow, stopPlan } from "../../server/planner/runs";

export const planAction = async (input: unknown) => perform(planNow, input);
export const stopPlanAction = async (input: unknown) => perform(stopPlan, input);
export const fixAction = async (input: unknown) => perform(fix, input);
export const planChangesAction = async (input: unknown) => perform(planChanges, input);
export const placeCostsAction = async (input: unknown) => perform(placeCostsHere, input);
export const takeConnectionsAction = async (input: unknown) => perform(takeConnections, input);
export const orderMoreAction = async (input: unknown) => perform(orderMore, input);
export const schoolsAction = async (input: unknown) => perform(changeSchools, input);
