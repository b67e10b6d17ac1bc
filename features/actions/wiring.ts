"use server";
import { orderMore } from "../../server/parts/order-more";
import { fix } from "../../server/plan/fix";
import { takeConnections } from "../../server/plan/take-connections";
import { leadThrough } from "../../server/plan/way";
import { planNow, stopPlan } from "../../server/planner/runs";
import { perform } from "../../server/unit/door";

export const planAction = async (input: unknown) => perform(planNow, input);
export const stopPlanAction = async (input: unknown) => perform(stopPlan, input);
export const fixAction = async (input: unknown) => perform(fix, input);
export const leadThroughAction = async (input: unknown) => perform(leadThrough, input);
export const takeConnectionsAction = async (input: unknown) => perform(takeConnections, input);
export const orderMoreAction = async (input: unknown) => perform(orderMore, input);
