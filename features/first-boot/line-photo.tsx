"use client";
import { Camera } from "lucide-react";
import { SHEET } from "../../core/machine";
import type { BootSlice } from "../../server/views/slices";
import { cx } from "../../ui/cx";
import { MOST_PHOTO_BYTES, PHOTO_TYPES } from "../device/photos";
import type { Acting } from "../frame/use-act";

/** A picture of what a line says: a firmware page, a change list, a light that is dark. */
export function LinePhoto({
  number,
  line,
  what,
  photos,
  act,
}: {
  number: string;
  line: string;
  what: string;
  photos: BootSlice["photos"];
  act: Acting;
}) {
  const mine = photos.filter((p) => p.line === line);
  const send = (file: File) =>
    act.run(
      async () => {
        if (!PHOTO_TYPES.includes(file.type))
          return { ok: false as const, sentence: `${file.name} is no photo that Imbra reads: it takes JPEG, PNG and WebP.` };
        if (file.size > MOST_PHOTO_BYTES)
          return { ok: false as const, sentence: `${file.name} is too large: ${Math.round(MOST_PHOTO_BYTES / 1_000_000)} MB at most.` };
        const about = new URLSearchParams({
          number,
          step: `${SHEET}${line}`,
          entry: JSON.stringify({ key: crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}` }),
        });
        const r = await fetch(`/photos?${about}`, { method: "POST", headers: { "Content-Type": file.type }, body: file });
        return (await r.json()) as { ok: true; value: undefined };
      },
      () => `A photo of ${what} is kept.`,
    );
  return (
    <span className="ml-auto flex items-center gap-1">
      {mine.slice(-2).map((p) => (
        <a key={p.id} href={`/photos/${p.id}`} target="_blank" rel="noreferrer" aria-label={`Photo of ${what}, ${p.by}`}>
          {/* biome-ignore lint/performance/noImgElement: a photo of the shop's own, of its own size */}
          <img src={`/photos/${p.id}`} alt="" className="h-8 w-8 border border-edge object-cover" loading="lazy" />
        </a>
      ))}
      <label
        className={cx(
          "flex h-9 w-9 cursor-pointer items-center justify-center text-soft hover:text-ink focus-within:outline-3 focus-within:outline-ink",
        )}
      >
        <Camera size={18} aria-hidden />
        <span className="sr-only">Photo of {what}</span>
        <input
          type="file"
          accept={PHOTO_TYPES.join()}
          className="sr-only"
          disabled={act.pending}
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) send(file);
            e.target.value = "";
          }}
        />
      </label>
    </span>
  );
}
