"use client";
import { useEffect, useRef } from "react";
import { Button } from "../../ui/button";
import { addPhoto, type KeptPhoto, PHOTO_TYPES } from "../device/photos";

/** The key that opens the camera, or a file where there is none. What is taken is kept here first. */
export function PhotoKey({
  className,
  about,
  open,
  onSaid,
}: {
  className: string;
  about: Pick<KeptPhoto, "number" | "step">;
  /** Raised to open the camera from elsewhere: by a key. */
  open: number;
  onSaid: (sentence: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const opened = useRef(open);
  useEffect(() => {
    if (open !== opened.current) input.current?.click();
    opened.current = open;
  }, [open]);
  return (
    <>
      <input
        ref={input}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label="Take a photo of this card"
        accept={PHOTO_TYPES.join(",")}
        capture="environment"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (!file) return;
          addPhoto(file, about).then(
            (refused) => onSaid(refused ?? "Photo kept. It is sent by itself."),
            () => onSaid("This tablet cannot keep the photo: its storage is full or switched off. Nothing was kept."),
          );
        }}
      />
      <Button bench className={className} onClick={() => input.current?.click()}>
        Photo
      </Button>
    </>
  );
}
