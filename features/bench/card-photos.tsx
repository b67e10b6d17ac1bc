"use client";
import type { BenchSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { Photo } from "../../ui/photo";
import { KeptPicture } from "../device/kept-picture";
import { dropPhoto, type KeptPhoto } from "../device/photos";

/** Photos of a card: those that everybody has, and those that wait here. */
export function CardPhotos({ photos, waiting }: { photos: BenchSlice["photos"]; waiting: readonly KeptPhoto[] }) {
  if (photos.length + waiting.length === 0) return null;
  return (
    <ul aria-label="Photos of this card" className="mb-3 flex flex-wrap gap-2">
      {photos.map((p) => (
        <li key={p.id}>
          <Photo id={p.id} alt={`By ${p.by}`} />
        </li>
      ))}
      {waiting.map((p) => (
        <li key={p.key}>
          <KeptPicture photo={p} />
          {p.aside ? <span className="block text-stop">{p.aside}</span> : null}
          {p.aside ? (
            <Button bench onClick={() => void dropPhoto(p.id)}>
              Drop it
            </Button>
          ) : null}
        </li>
      ))}
    </ul>
  );
}
