"use client";
import { FilePlus } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { importAction } from "../actions/benches";
import { useAct } from "../frame/use-act";

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
    <Dialog
      open={open}
      onOpenChange={(o) => {
        setOpen(o);
        act.clear();
      }}
      title="New job from a build file"
      close="Leave it"
      className="w-[640px]"
      trigger={
        <Button>
          <FilePlus size={16} aria-hidden />
          From a build file
        </Button>
      }
    >
      <p id="new-job-help">Choose a build file or paste its text. docs/formats.md describes it; examples/ holds some.</p>
      <input type="file" aria-label="Build file" accept="application/json,.json" className="field" onChange={(e) => void read(e.target.files?.[0])} />
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
        <Button tone="mark" disabled={act.pending} onClick={store}>
          {act.pending ? "Reading …" : "Read and store"}
        </Button>
      </div>
    </Dialog>
  );
}
