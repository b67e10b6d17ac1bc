"use client";
import { Command } from "cmdk";
import { Search } from "lucide-react";
import { usePathname, useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import type { Found } from "../../server/job/find";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { Dialog } from "../../ui/dialog";
import { ask } from "../frame/ask";
import { keepTheme } from "../frame/keep-theme";
import { type Binding, useKeyList, useKeys } from "../frame/keys";
import { useFound } from "../frame/use-found";

const KIND: Record<Found["kind"], string> = {
  lead: "Leads of this job",
  job: "Jobs",
  serial: "Serials",
  "sent back": "Serials sent back",
  part: "Parts of this job",
  "part type": "Part types",
};
/** What stands in the palette before anything is typed. */
const MOST_DOINGS = 40;

/** Finds jobs, serials, parts and part types, and does what can be done here; Ctrl+K from anywhere. A scan that no screen knows opens what it stands for. */
export function Palette({ keepsPeople, bench = false }: { keepsPeople: boolean; bench?: boolean }) {
  const [open, setOpen] = useState(false);
  const [keysOpen, setKeysOpen] = useState(false);
  const [text, setText] = useState("");
  const [heard, setHeard] = useState("");
  const router = useRouter();
  const inJob = jobIn(usePathname());
  const { list } = useKeyList();
  const go = (href: string) => () => router.push(href);
  const bindings: Binding[] = [
    { keys: ["ctrl+k"], word: "Find, or do something", only: "keys", run: () => setOpen(true) },
    { keys: ["?"], word: "All keys of this screen", run: () => setKeysOpen(true) },
    { keys: [], word: "New job", run: go("/intake") },
    { keys: [], word: "Benches", run: go("/") },
    { keys: [], word: "All jobs", run: go("/jobs") },
    { keys: [], word: "Shelf", run: go("/shelf") },
    { keys: [], word: "The shop", run: go("/shop") },
    { keys: [], word: "Part types from a file", run: go("/shelf/import") },
    { keys: [], word: "You: password, PIN, sign-ins", run: go("/you") },
    ...(keepsPeople ? [{ keys: [], word: "People", run: go("/people") }] : []),
    ...(["light", "dark", "system"] as const).map((theme) => ({
      keys: [],
      word: theme === "system" ? "Light or dark as the system has it" : theme === "dark" ? "Dark" : "Light",
      run: () => {
        document.documentElement.dataset.theme = theme;
        keepTheme(theme);
      },
    })),
  ];
  const onScan = (code: string): boolean => {
    setHeard(`${code} …`);
    void ask("job.scanned", { code })
      .then((r) => {
        if (!r.ok) setHeard(r.sentence);
        else if (!r.value.href) setHeard(`${code} is no job, serial or part type here, and no lead of this job.`);
        else {
          setHeard(r.value.words ?? "");
          setOpen(false);
          router.push(r.value.href);
        }
      })
      .catch(() => setHeard(`${code} was scanned, but the server does not answer.`));
    return true;
  };
  useKeys("all", bindings, onScan);
  const { found, sentence } = useFound(
    text.trim() === "" ? undefined : (words) => ask("job.find", { text: words, ...(inJob ? { inJob } : {}) }),
    text,
  );
  const hits = found ?? [];
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
  // What can be done is asked for when it is shown: screens come and go.
  const doings = useMemo(() => (open ? list().filter((d) => d.only !== "keys") : []), [open, list]);
  // Words from their beginning first; then what has no key, which is what one comes here for.
  const rank = (d: Binding) => Math.min(1, d.keys.length) + (wanted.every((w) => ` ${d.word.toLowerCase()}`.includes(` ${w}`)) ? 0 : 2);
  const shown = doings
    .filter((d) => wanted.every((w) => d.word.toLowerCase().includes(w)))
    .sort((a, b) => rank(a) - rank(b))
    .slice(0, MOST_DOINGS);
  const kinds = [...new Set(hits.map((h) => h.kind))];
  const close = () => {
    setOpen(false);
    setText("");
  };
  return (
    <>
      <Dialog
        open={open}
        onOpenChange={(o) => (o ? setOpen(true) : close())}
        title="Find, or do something"
        className="!top-16 w-[620px] !translate-y-0"
        trigger={
          bench ? undefined : (
            <Button className="min-w-0 justify-start font-normal min-[1100px]:min-w-56">
              <Search size={16} aria-hidden />
              <span className="truncate max-[900px]:sr-only">Find or do</span>
              <span className="mono ml-auto text-label max-[1100px]:sr-only">Ctrl+K</span>
            </Button>
          )
        }
      >
        <Command shouldFilter={false} label="Find a job, serial, part or part type, or something to do" loop>
          <Command.Input
            value={text}
            onValueChange={setText}
            placeholder="FS-1041, a client, a serial, hand over"
            className="field w-full"
            maxLength={80}
          />
          <Command.List className="mt-2 max-h-[56dvh] overflow-auto">
            {kinds.map((kind) => (
              <Command.Group
                key={kind}
                heading={KIND[kind]}
                className="[&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:text-second [&>[cmdk-group-heading]]:text-soft"
              >
                {hits
                  .filter((h) => h.kind === kind)
                  .map((h) => (
                    <Row
                      key={`${h.href}${h.title}${h.detail}`}
                      value={`${h.kind} ${h.title} ${h.detail}`}
                      title={h.title}
                      detail={h.detail}
                      onSelect={() => {
                        close();
                        router.push(h.href);
                      }}
                    />
                  ))}
              </Command.Group>
            ))}
            {shown.length > 0 ? (
              <Command.Group
                heading="Do"
                className="[&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:text-second [&>[cmdk-group-heading]]:text-soft"
              >
                {shown.map((d) => (
                  <Row
                    key={d.word}
                    value={`do ${d.word}`}
                    title={d.word}
                    detail={d.keys.map(keyWord).join(" or ")}
                    onSelect={() => {
                      close();
                      // Once the sheet has given back the focus.
                      setTimeout(() => d.run(), 0);
                    }}
                  />
                ))}
              </Command.Group>
            ) : null}
          </Command.List>
          <p role="status" className="mt-1 min-h-6 text-second">
            {sentence || (text && hits.length === 0 && shown.length === 0 ? `Nothing here answers to "${text}".` : "")}
          </p>
        </Command>
      </Dialog>
      <KeyList open={keysOpen} onOpenChange={setKeysOpen} />
      <div role="status" className={cx("pointer-events-none fixed left-3 z-30", bench ? "top-22 text-bench" : "bottom-3")}>
        {heard ? (
          <p className="pointer-events-auto flex items-center gap-3 rounded border-2 border-ink bg-raised px-3 py-2">
            {heard}
            <Button bench={bench} onClick={() => setHeard("")}>
              Close
            </Button>
          </p>
        ) : null}
      </div>
    </>
  );
}

export const jobIn = (path: string): string | undefined => {
  const part = /^\/job\/([^/]+)/.exec(path)?.[1];
  try {
    return part && decodeURIComponent(part);
  } catch {
    return undefined;
  }
};

const KEY_WORD: Record<string, string> = {
  " ": "Space",
  Escape: "Esc",
  ArrowUp: "up",
  ArrowDown: "down",
  ArrowLeft: "left",
  ArrowRight: "right",
  "ctrl+k": "Ctrl+K",
  "ctrl+z": "Ctrl+Z",
};
const keyWord = (k: string) => KEY_WORD[k] ?? k.toUpperCase();

function Row({ value, title, detail, onSelect }: { value: string; title: string; detail: string; onSelect: () => void }) {
  return (
    <Command.Item
      value={value}
      onSelect={onSelect}
      className="bar-left flex min-h-10 cursor-pointer items-center gap-3 px-2 data-[selected=true]:border-l-ink data-[selected=true]:bg-ground"
    >
      <span className="min-w-0 flex-1 truncate">{title}</span>
      <span className="truncate text-second text-soft">{detail}</span>
    </Command.Item>
  );
}

/** Every key of the screen that is open; single keys can be switched off (WCAG 2.1.4). */
function KeyList({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { list, off, setOff } = useKeyList();
  const all = open ? list().filter((k) => k.keys.length > 0) : [];
  return (
    <Dialog open={open} onOpenChange={onOpenChange} title="Keys" className="w-[560px]">
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={!off} onChange={(e) => setOff(!e.target.checked)} />
        Single letters and digits are keys; a scanner is heard in any case
      </label>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1">
        {all.map((k) => (
          <div key={`${k.scope}${k.word}`} className="contents">
            <dt className="mono">{k.keys.map(keyWord).join(", ")}</dt>
            <dd>{k.word}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
