"use client";
import { useParams, usePathname, useRouter } from "next/navigation";
import { useEffect } from "react";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { SeverityShape } from "../../ui/marks";

export interface StageEntry {
  slug: string;
  name: string;
  progress: string;
  stop: boolean;
}

/** The stages of a job in the order of work, Faults apart. G then a digit goes to a stage. */
export function Stages({ head, stages, faults }: { head: { number: string; title: string; client: string }; stages: StageEntry[]; faults: number }) {
  const path = usePathname();
  const { number } = useParams<{ number: string }>();
  const router = useRouter();
  useEffect(() => {
    let armed = 0;
    const key = (e: KeyboardEvent) => {
      const t = e.target as HTMLElement | null;
      if ((t && (t.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName))) || e.ctrlKey || e.altKey || e.metaKey) return;
      if (e.key.toLowerCase() === "g") {
        armed = Date.now();
        return;
      }
      const n = Number(e.key);
      if (Date.now() - armed < 1500 && n >= 1 && n <= stages.length + 1) {
        armed = 0;
        e.stopImmediatePropagation();
        router.push(`/job/${number}/${n <= stages.length ? stages[n - 1]?.slug : "faults"}`);
      }
    };
    window.addEventListener("keydown", key, true);
    return () => window.removeEventListener("keydown", key, true);
  }, [router, number, stages]);
  const here = (slug: string) => path.endsWith(`/${slug}`);
  return (
    <nav aria-label="Stages of the job" className="flex h-15 shrink-0 items-stretch border-b border-rule">
      <div className="flex w-66 shrink-0 flex-col justify-center px-4">
        <div className="truncate text-key font-[650]">
          <span className="mono">{head.number}</span> {head.title}
        </div>
        <div className="truncate text-second text-soft">{head.client}</div>
      </div>
      {stages.map((s) => (
        <Link
          key={s.slug}
          href={`/job/${number}/${s.slug}`}
          aria-current={here(s.slug) ? "page" : undefined}
          className={cx(
            "flex w-34 flex-col justify-center border-b-4 px-3 no-underline hover:bg-sheet",
            here(s.slug) ? "border-b-ink bg-sheet" : "border-b-transparent",
          )}
        >
          <span className="flex items-center gap-1.5 font-semibold">
            {s.name}
            {s.stop ? (
              <>
                <SeverityShape severity="stop" size={14} />
                <span className="sr-only">has a stop</span>
              </>
            ) : null}
          </span>
          <span className="truncate text-label text-soft">{s.progress}</span>
        </Link>
      ))}
      <div className="flex-1" />
      <Link
        href={`/job/${number}/faults`}
        aria-current={here("faults") ? "page" : undefined}
        className={cx(
          "flex w-30 flex-col justify-center border-b-4 border-l border-l-rule px-3 no-underline hover:bg-sheet",
          here("faults") ? "border-b-ink bg-sheet" : "border-b-transparent",
        )}
      >
        <span className="font-semibold">Faults</span>
        <span className="text-label text-soft">{faults === 0 ? "none open" : `${faults} open`}</span>
      </Link>
    </nav>
  );
}
