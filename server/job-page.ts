import "server-only";
import { notFound } from "next/navigation";
import { cache } from "react";
import { entityManager } from "../db";
import { type JobView, jobView } from "./views";

/** One view a request, shared by the frame and the stage. */
export const jobPage = cache(async (number: string): Promise<JobView> => {
  const view = await jobView(await entityManager(), decodeURIComponent(number));
  if (!view) notFound();
  return view;
});
