"use server";
import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";
import { z } from "zod";
import { act } from "../../server/act";
import { findJobs, importBuild } from "../../server/jobs";
import { OrderMore, orderMore } from "../../server/order-more";
import { SetAsideEntry, setAside } from "../../server/overrides";
import { type PlaceRow, Places, placeCosts } from "../../server/places";
import { type PlanChange, PlanChanges, planChanges } from "../../server/plan-changes";
import { type Planned, planJob } from "../../server/plan-job";
import { no, type Result, yes } from "../../server/result";
import { changeSchools, SchoolsChange } from "../../server/schools";
import { sitDown } from "../../server/who";
import { TakeConnections, takeConnections } from "../../server/wiring-files";
import {
  ChangePart,
  CloseFault,
  changePart,
  closeFault,
  Fix,
  fix,
  Note,
  note,
  Observe,
  observe,
  Setting,
  Step,
  setting,
  step,
  Tick,
  Try,
  tick,
  tryAction,
} from "../../server/work";

function fresh<T>(result: Result<T>): Result<T> {
  if (result.ok) revalidatePath("/", "layout");
  return result;
}

const JobNumber = z.object({ number: z.string().min(1).max(40) });

export const planAction = async (input: unknown): Promise<Result<Planned>> =>
  fresh(await act(JobNumber, input, (em, by, v) => planJob(em, v.number, by)));
export const orderMoreAction = async (input: unknown) => fresh(await act(OrderMore, input, orderMore));
export const planChangesAction = async (input: unknown): Promise<Result<PlanChange>> => act(PlanChanges, input, planChanges);
export const setAsideAction = async (input: unknown) => fresh(await act(SetAsideEntry, input, setAside));
export const tickAction = async (input: unknown) => fresh(await act(Tick, input, tick));
export const fixAction = async (input: unknown) => fresh(await act(Fix, input, fix));
export const stepAction = async (input: unknown) => fresh(await act(Step, input, step));
export const noteAction = async (input: unknown) => fresh(await act(Note, input, note));
export const observeAction = async (input: unknown) => fresh(await act(Observe, input, observe));
export const tryActionAction = async (input: unknown) => fresh(await act(Try, input, tryAction));
export const closeFaultAction = async (input: unknown) => fresh(await act(CloseFault, input, closeFault));
export const changePartAction = async (input: unknown) => fresh(await act(ChangePart, input, changePart));
export const settingAction = async (input: unknown) => fresh(await act(Setting, input, setting));
export const importAction = async (input: unknown): Promise<Result<string>> =>
  fresh(await act(z.object({ text: z.string().max(4_000_000) }), input, (em, by, v) => importBuild(em, by, v.text)));

export async function sitDownAction(id: unknown): Promise<Result> {
  const parsed = z.uuid().safeParse(id);
  if (!parsed.success || !(await sitDown(parsed.data))) return no("That person is not in the list. Choose again.");
  return fresh(yes(undefined));
}

export async function themeAction(theme: unknown): Promise<void> {
  (await cookies()).set("theme", theme === "dark" ? "dark" : "light", { path: "/", sameSite: "lax", maxAge: 31_536_000 });
}

export const findAction = async (input: unknown): Promise<Result<Awaited<ReturnType<typeof findJobs>>>> =>
  act(z.object({ text: z.string().trim().min(1).max(80) }), input, async (em, _by, v) => yes(await findJobs(em, v.text)));

export async function schoolsAction(input: unknown): Promise<Result> {
  const r = await act(SchoolsChange, input, changeSchools);
  if (r.ok) revalidatePath("/", "layout");
  return r;
}

export async function takeConnectionsAction(input: unknown): Promise<Result<{ fixed: number; same: number; left: string[] }>> {
  const r = await act(TakeConnections, input, takeConnections);
  if (r.ok) revalidatePath("/", "layout");
  return r;
}

export const placeCostsAction = async (input: unknown): Promise<Result<PlaceRow[]>> => act(Places, input, (em, by, p) => placeCosts(em, by, p));
