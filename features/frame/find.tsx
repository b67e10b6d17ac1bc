"use client";
import { Command } from "cmdk";
import { Search } from "lucide-react";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { findAction } from "./actions";

interface Hit {
  number: string;
  title: string;
  client: string;
  because: string;
}

/** Finds a job by number, client or serial; Ctrl+K from anywhere. */
export function Find() {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [hits, setHits] = useState<Hit[]>([]);
  const [sentence, setSentence] = useState("");
  const router = useRouter();
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setOpen(true);
      }
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  }, []);
  useEffect(() => {
    if (text.trim() === "") {
      setHits([]);
      setSentence("");
      return;
    }
    let live = true;
    const wait = setTimeout(async () => {
      const r = await findAction({ text });
      if (!live) return;
      setHits(r.ok ? r.value : []);
      setSentence(r.ok ? (r.value.length === 0 ? `No job, client or serial holds "${text}".` : "") : r.sentence);
    }, 120);
    return () => {
      live = false;
      clearTimeout(wait);
    };
  }, [text]);
  const go = (number: string) => {
    setOpen(false);
    router.push(`/job/${number}/parts`);
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="key min-w-56 justify-start font-normal">
        <Search size={16} aria-hidden />
        Find a job, client or serial<span className="mono ml-auto text-label">Ctrl+K</span>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ground/80" />
        <Dialog.Content
          className="fixed z-40 left-1/2 top-24 w-[560px] max-w-[92vw] -translate-x-1/2 rounded border-2 border-ink bg-raised p-4"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-2 text-key font-[650]">Find</Dialog.Title>
          <Command shouldFilter={false} label="Find a job, client or serial">
            <Command.Input value={text} onValueChange={setText} placeholder="FS-1041, a client, a serial" className="field w-full" />
            <Command.List className="mt-2 max-h-80 overflow-auto">
              {hits.map((h) => (
                <Command.Item
                  key={`${h.number}${h.because}`}
                  value={`${h.number}${h.because}`}
                  onSelect={() => go(h.number)}
                  className="bar-left flex min-h-12 cursor-pointer items-center gap-3 px-2 data-[selected=true]:border-l-ink"
                >
                  <span className="mono font-semibold">{h.number}</span>
                  <span>{h.title}</span>
                  <span className="text-second text-soft">{h.because || h.client}</span>
                </Command.Item>
              ))}
            </Command.List>
            <p role="status" className="mt-1 min-h-6 text-second">
              {sentence}
            </p>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
