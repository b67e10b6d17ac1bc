"use client";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useTransition } from "react";
import { SeverityShape } from "../../ui/marks";
import { sitDownAction } from "../frame/actions";
import { clock } from "../frame/clock";
import type { Entry } from "./entries";
import type { Outbox } from "./outbox";

export interface Person {
  id: string;
  name: string;
}

/** Entries that wait on this tablet, those set aside with what can be done, and who works here. */
export function EntriesSheet({
  open,
  close,
  outbox,
  people,
  who,
}: {
  open: boolean;
  close: () => void;
  outbox: Outbox;
  people: Person[];
  who: string | null;
}) {
  const { waiting, aside } = outbox;
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(o) => {
        if (!o) close();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ground/80" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-6 bottom-6 top-6 z-40 mx-auto flex max-w-[960px] flex-col gap-5 overflow-auto rounded border-2 border-ink bg-raised p-6 text-bench"
        >
          <div className="flex items-center gap-4">
            <Dialog.Title className="flex-1 text-bench-key font-bold">Entries of this tablet</Dialog.Title>
            <Dialog.Close className="key-bench !min-h-20 w-34">Close</Dialog.Close>
          </div>
          {aside.length > 0 ? (
            <section aria-label="Set aside" className="flex flex-col gap-4">
              <h2 className="font-bold">Set aside: look, then choose</h2>
              {aside.map((e) => (
                <Aside key={e.id} entry={e} outbox={outbox} />
              ))}
            </section>
          ) : null}
          <section aria-label="To send">
            <h2 className="font-bold">To send</h2>
            {waiting.length === 0 ? <p>Nothing. The server has all that was pressed here.</p> : <p>{outbox.sentence}</p>}
            <ol className="mt-2 flex flex-col gap-1">
              {waiting.slice(0, 30).map((e) => (
                <li key={e.id}>
                  <span className="mono">{clock(e.madeAtMs)}</span> {e.said.number}: {e.words}
                </li>
              ))}
              {waiting.length > 30 ? <li className="text-soft">and {waiting.length - 30} more</li> : null}
            </ol>
          </section>
          <WhoKeys people={people} who={who} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Aside({ entry, outbox }: { entry: Entry; outbox: Outbox }) {
  const facts = entry.aside?.facts;
  return (
    <article className="flex flex-col gap-3 border-t-2 border-ink pt-3">
      <p className="flex gap-3">
        <span className="pt-1">
          <SeverityShape severity="stop" size={28} />
        </span>
        <span>
          <strong>
            <span className="mono">{clock(entry.madeAtMs)}</span> {entry.said.number}: {entry.words}.
          </strong>{" "}
          {entry.aside?.sentence}
        </span>
      </p>
      <div className="flex flex-wrap gap-3">
        {facts ? (
          <>
            <button type="button" className="key-bench !min-h-20 px-6" onClick={() => outbox.again(entry, true)}>
              It is {facts.yours}
            </button>
            <button type="button" className="key-bench !min-h-20 px-6" onClick={() => outbox.drop(entry)}>
              It is {facts.there}
            </button>
          </>
        ) : (
          <>
            <button type="button" className="key-bench !min-h-20 px-6" onClick={() => outbox.again(entry, false)}>
              Send it again
            </button>
            <button type="button" className="key-bench !min-h-20 px-6" onClick={() => outbox.drop(entry)}>
              Leave it out
            </button>
          </>
        )}
      </div>
    </article>
  );
}

function WhoKeys({ people, who }: { people: Person[]; who: string | null }) {
  const [pending, start] = useTransition();
  const router = useRouter();
  return (
    <section aria-label="Who works here">
      <h2 className="font-bold">{who ? `${who} works here` : "Who works here?"}</h2>
      <div className="mt-2 flex flex-wrap gap-3">
        {people.map((p) => (
          <button
            key={p.id}
            type="button"
            className="key-bench !min-h-20 px-6"
            aria-pressed={p.name === who}
            disabled={pending}
            onClick={() =>
              start(async () => {
                await sitDownAction(p.id).catch(() => undefined);
                router.refresh();
              })
            }
          >
            {p.name}
          </button>
        ))}
      </div>
    </section>
  );
}
