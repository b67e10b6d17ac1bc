import type { ReactNode } from "react";
import { JobFrame } from "../../../../features/job/job-frame";
import { may } from "../../../../server/kernel/actor";
import { whoIsIt } from "../../../../server/kernel/who";
import { peopleAtBench } from "../../../../server/people/pages";
import { jobData } from "../../../../server/views/job-page";

export default async function JobLayout({ children, params }: { children: ReactNode; params: Promise<{ number: string }> }) {
  const [first, who, people] = await Promise.all([jobData((await params).number, "frame"), whoIsIt(), peopleAtBench()]);
  return (
    <JobFrame first={first} people={people} mayEnd={may(who, "end jobs")} mayRun={may(who, "run jobs")}>
      {children}
    </JobFrame>
  );
}
