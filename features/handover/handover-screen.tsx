"use client";
import type { ReadyView } from "../../server/handover/recorded";
import type { HandoverSlice } from "../../server/views/slices";
import { ClientPageKey } from "./client-page-key";
import { Closing } from "./closing";
import { GoesAlong } from "./goes-along";
import { MissingList } from "./missing-list";
import { OtherJobs } from "./other-jobs";
import { Papers } from "./papers";
import { RecordOfJob } from "./record";
import { Sold } from "./sold";

/** First what keeps the machine here, each with the way there; then what was sold beside what is in it, what goes along, and the record. */
export function HandoverScreen({
  view,
  ready,
  lead,
  page,
}: {
  view: HandoverSlice;
  ready: ReadyView;
  lead: boolean;
  page: string | null | undefined;
}) {
  const { number, stage, client } = view.head;
  const closed = stage === "handed-over" || stage === "cancelled";
  const n = ready.missing.length;
  return (
    <section aria-label="Record of the job" tabIndex={0} className="region min-w-0 flex-1 px-6 py-4">
      <h1 className="text-verdict font-semibold">
        {closed
          ? stage === "cancelled"
            ? "This job was cancelled."
            : "It has left the shop."
          : n === 0
            ? "Nothing is missing: it can go."
            : `${n} ${n === 1 ? "thing keeps" : "things keep"} it here.`}
      </h1>
      <div className="mt-2 grid grid-cols-[minmax(0,11fr)_minmax(0,9fr)] gap-8 max-[900px]:grid-cols-1">
        <div className="min-w-0">
          {closed ? null : <MissingList number={number} missing={ready.missing} />}
          <Closing number={number} stage={stage} missing={ready.missing} lead={lead} leaving={ready.leaving} />
          <OtherJobs number={number} ready={ready} stage={stage} />
          <Papers number={number} />
          {page === undefined ? null : <ClientPageKey number={number} page={page} />}
        </div>
        <GoesAlong number={number} ready={ready} closed={closed} />
      </div>
      <Sold number={number} ready={ready} closed={closed} client={client} />
      <RecordOfJob view={view} />
    </section>
  );
}
