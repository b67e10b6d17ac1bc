"use client";
import { FilePlus } from "lucide-react";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { useAct } from "../frame/use-act";
import { importAction } from "./actions";

/** A new job from a build file: chosen, or pasted. A bad file gives sentences and stores nothing. */
export function NewJob() {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const act = useAct();
  const router = useRouter();
  const read = async (file: File | undefined) => {
    if (!file) return;
    setText(file.size > 4_000_000 ? "x".repeat(4_000_001) : await file.text());
  };
  const store = () =>
    act.run(async () => {
      if (text.length > 4_000_000)
        return { ok: false, sentence: "The file is larger than 4 MB. Nothing was stored. A build file is far smaller: is it the right one?" };
      const r = await importAction({ text });
      if (r.ok) {
        setOpen(false);
        setText("");
        router.push(`/job/${r.value}/parts`);
      }
      return r;
    });
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(o) => {
        setOpen(o);
        act.clear();
      }}
    >
      <Dialog.Trigger className="key">
        <FilePlus size={16} aria-hidden />
        From a build file
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ground/80" />
        <Dialog.Content
          className="fixed left-1/2 top-1/2 z-40 flex max-h-[88vh] w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col gap-3 rounded border-2 border-ink bg-raised p-6"
          aria-describedby="new-job-help"
        >
          <Dialog.Title className="text-action font-[650]">New job from a build file</Dialog.Title>
          <p id="new-job-help">Choose a build file or paste its text. docs/formats.md describes it; examples/ holds some.</p>
          <input
            type="file"
            aria-label="Build file"
            accept="application/json,.json"
            className="field"
            onChange={(e) => void read(e.target.files?.[0])}
          />
          <textarea
            aria-label="Text of the build file"
            className="field mono h-56 text-second"
            value={text.length > 4_000_000 ? "" : text}
            onChange={(e) => setText(e.target.value)}
            spellCheck={false}
          />
          <div role="status">
            {act.sentence ? <p className="font-semibold">{act.sentence}</p> : null}
            {act.more.length > 0 ? (
              <ul className="mono mt-1 max-h-40 list-disc overflow-auto pl-5 text-second">
                {act.more.map((m) => (
                  <li key={m}>{m}</li>
                ))}
              </ul>
            ) : null}
          </div>
          <div className="flex justify-end gap-3">
            <Dialog.Close className="key">Leave it</Dialog.Close>
            <button type="button" className="key key-mark" disabled={act.pending} onClick={store}>
              {act.pending ? "Reading …" : "Read and store"}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
