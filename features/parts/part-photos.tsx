"use client";
import { useState } from "react";
import type { PartsSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Photo } from "../../ui/photo";
import { KeptPicture } from "../device/kept-picture";
import { addPhoto, dropPhoto, PHOTO_TYPES } from "../device/photos";
import { usePhotos } from "../device/use-photos";
import { useDates } from "../frame/dates";

/** Photos of one part: its own, and those of the steps that fit it. A new one is kept on this device until it is sent. */
export function PartPhotos({ number, part, photos }: { number: string; part: string; photos: PartsSlice["photos"] }) {
  const dates = useDates();
  const [said, setSaid] = useState("");
  const waiting = usePhotos().filter((p) => p.number === number && p.part === part);
  return (
    <section aria-label="Photos of this part" className="flex flex-col gap-2">
      {photos.length + waiting.length > 0 ? (
        <ul className="flex flex-wrap gap-2">
          {photos.map((p) => (
            <li key={p.id}>
              <Photo id={p.id} alt={`By ${p.by}, ${dates.both(p.at)}`} />
            </li>
          ))}
          {waiting.map((p) => (
            <li key={p.key} className="text-second">
              <KeptPicture photo={p} />
              {p.aside ? (
                <>
                  <span className="block text-stop">{p.aside}</span>
                  <Button onClick={() => void dropPhoto(p.id)}>Drop it</Button>
                </>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
      <ChooseFile
        word="Add a photo"
        className="self-start"
        accept={PHOTO_TYPES.join(",")}
        onFile={(file) =>
          addPhoto(file, { number, part }).then(
            (refused) => setSaid(refused ?? "Kept here, and sent by itself."),
            () => setSaid("This device cannot keep the photo: its storage is full or switched off. Nothing was kept."),
          )
        }
      />
      <p role="status" className="text-second">
        {said}
      </p>
    </section>
  );
}
