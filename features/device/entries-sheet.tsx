"use client";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { SeverityShape } from "../../ui/marks";
import { useDates, WithDates } from "../frame/dates";
import type { Entry } from "./entries";
import type { Outbox } from "./outbox";

/** Entries that wait on this tablet, and those set aside with what can be done. */
export function EntriesSheet({ open, close, outbox, who }: { open: boolean; close: () => void; outbox: Outbox; who: Entry["by"] | null }) {
  const { waiting, aside } = outbox;
  const dates = useDates();
  return (
    <Dialog bench open={open} onOpenChange={(o) => !o && close()} title="Entries of this tablet">
      {aside.length > 0 ? (
        <section aria-label="To look at" className="flex flex-col gap-4">
          <h2 className="font-bold">To look at: two say two things; look, then choose</h2>
          {aside.map((e) => (
            <Aside key={e.id} entry={e} outbox={outbox} who={who} />
          ))}
        </section>
      ) : null}
      <section aria-label="To send">
        <h2 className="font-bold">To send</h2>
        {waiting.length === 0 ? <p>Nothing. The server has all that was pressed here.</p> : <p>{outbox.sentence}</p>}
        <ol className="mt-2 flex flex-col gap-1">
          {waiting.slice(0, 30).map((e) => (
            <li key={e.id}>
              <span className="mono">{dates.clock(e.madeAtMs)}</span> {e.said.number}: {e.words}
              {e.by ? <span className="text-soft">, {e.by.name}</span> : <span className="text-soft">, nobody yet</span>}
            </li>
          ))}
          {waiting.length > 30 ? <li className="text-soft">and {waiting.length - 30} more</li> : null}
        </ol>
      </section>
    </Dialog>
  );
}

function Aside({ entry, outbox, who }: { entry: Entry; outbox: Outbox; who: Entry["by"] | null }) {
  const facts = entry.aside?.facts;
  const dates = useDates();
  return (
    <article className="flex flex-col gap-3 border-t-2 border-ink pt-3">
      <p className="flex gap-3">
        <span className="pt-1">
          <SeverityShape severity="stop" size={28} />
        </span>
        <span>
          <strong>
            <span className="mono">{dates.clock(entry.madeAtMs)}</span> {entry.said.number}: {entry.words}.
          </strong>{" "}
          <WithDates text={entry.aside?.sentence ?? ""} />
        </span>
      </p>
      <div className="flex flex-wrap gap-3">
        {facts ? (
          <>
            <Button bench onClick={() => outbox.again(entry, "decided")}>
              It is <WithDates text={facts.yours} />
            </Button>
            <Button bench onClick={() => outbox.drop(entry)}>
              It is <WithDates text={facts.there} />
            </Button>
          </>
        ) : (
          <>
            <Button bench onClick={() => outbox.again(entry, "as it was")}>
              Send it again
            </Button>
            {who && entry.by?.id !== who.id ? (
              <Button bench onClick={() => outbox.again(entry, "mine")}>
                Record it as {who.name}
              </Button>
            ) : null}
            <Button bench onClick={() => outbox.drop(entry)}>
              Leave it out
            </Button>
          </>
        )}
      </div>
    </article>
  );
}
