"use client";
import { useEffect, useState } from "react";
import type { KeptPhoto } from "./photos";

/** A picture that only this device has. */
export function KeptPicture({ photo }: { photo: KeptPhoto }) {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    const made = URL.createObjectURL(photo.picture);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [photo.picture]);
  // biome-ignore lint/performance/noImgElement: a picture of this device has no address that could be made smaller
  return url ? <img src={url} alt="Waits to be sent" className="h-20 rounded border-2 border-dashed border-edge" /> : null;
}
