"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { PartType } from "../../core/catalogue";
import { groundOf, type Tap } from "../../core/photo";
import type { TypePhotoView } from "../../server/shelf/type-photo";
import { Button } from "../../ui/button";
import { tapsAction } from "../actions/shelf";
import { PHOTO_TYPES } from "../device/photos";
import { useAct } from "../frame/use-act";
import { sendShelfPhoto } from "../shared/send-shelf-photo";

/** Points of a part whose places are known: the holes of a board (published for its form factor), the corners of a case. */
function knownPoints(type: PartType): { id: string; label: string; xMm: number; yMm: number }[] {
  const { widthMm: w, heightMm: h } = type.body;
  const holes = type.kind === "board" ? type.body.holes.map((o) => ({ id: o.id, label: `hole ${o.id}`, xMm: o.at.xMm, yMm: o.at.yMm })) : [];
  const corners =
    w === undefined || h === undefined
      ? []
      : [
          { id: "c1", label: "upper corner, rear", xMm: 0, yMm: 0 },
          { id: "c2", label: `upper corner, ${type.kind === "case" ? "front" : "other side"}`, xMm: w, yMm: 0 },
          { id: "c3", label: `lower corner, ${type.kind === "case" ? "front" : "other side"}`, xMm: w, yMm: h },
          { id: "c4", label: "lower corner, rear", xMm: 0, yMm: h },
        ];
  // Of a board the outer holes first: the further apart, the surer.
  const far = [...holes].sort(
    (a, b) => Math.hypot(b.xMm - (w ?? 0) / 2, b.yMm - (h ?? 0) / 2) - Math.hypot(a.xMm - (w ?? 0) / 2, a.yMm - (h ?? 0) / 2),
  );
  return [...far, ...corners];
}

/** The shop's own photo under the drawing: its holes are tapped, the perspective goes, and headers are put where they are seen. */
export function PhotoGround({ type, photo }: { type: PartType; photo: TypePhotoView | null }) {
  const act = useAct();
  const router = useRouter();
  const points = knownPoints(type);
  const [taps, setTaps] = useState<Tap[]>(photo?.taps ?? []);
  const [next, setNext] = useState(points[0]?.id ?? "");
  const [lengthMm, setLengthMm] = useState("");
  const [free, setFree] = useState<{ xPx: number; yPx: number }[]>([]);
  const ground = groundOf(taps);
  const nameOf = (t: Tap) => points.find((p) => p.xMm === t.xMm && p.yMm === t.yMm)?.label ?? `${t.xMm}, ${t.yMm} mm`;
  const keep = (list: Tap[]) => {
    setTaps(list);
    if (!photo) return;
    act.run(
      async () => {
        const r = await tapsAction({ type: type.id, photo: photo.id, taps: list });
        router.refresh();
        return r;
      },
      () => "",
    );
  };
  const tap = (xPx: number, yPx: number) => {
    if (lengthMm !== "") {
      // Two taps and a length between them: the first is the origin, level with the second.
      const two = [...free, { xPx, yPx }];
      const [a, b] = two;
      if (!a || !b) return setFree(two);
      setFree([]);
      setLengthMm("");
      const turn = Math.atan2(b.yPx - a.yPx, b.xPx - a.xPx);
      // Lengths of a photo lie as it was held: the turn of the photo is kept.
      const l = Number(lengthMm);
      return keep([
        { ...a, xMm: 0, yMm: 0 },
        { ...b, xMm: Math.round(l * Math.cos(turn) * 10) / 10, yMm: Math.round(l * Math.sin(turn) * 10) / 10 },
      ]);
    }
    const at = points.find((p) => p.id === next);
    if (!at) return;
    const list = [
      ...taps.filter((t) => t.xMm !== at.xMm || t.yMm !== at.yMm),
      { xPx: Math.round(xPx), yPx: Math.round(yPx), xMm: at.xMm, yMm: at.yMm },
    ];
    keep(list.slice(-20));
    setNext(points.find((p) => !list.some((t) => t.xMm === p.xMm && t.yMm === p.yMm))?.id ?? "");
  };
  return (
    <div className="flex flex-col gap-3">
      <label className="key self-start">
        {photo ? "Another photo" : "A photo of it, from straight above"}
        <input
          type="file"
          accept={PHOTO_TYPES.join()}
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (!file) return;
            act.run(
              async () => {
                const r = await sendShelfPhoto({ type: type.id }, file);
                if (r.ok) {
                  setTaps([]);
                  router.refresh();
                }
                return r;
              },
              () => "It is there. Tap the holes on it.",
            );
          }}
        />
      </label>
      <p role="status" className="text-second">
        {act.sentence ||
          (typeof ground === "string"
            ? photo
              ? ground
              : ""
            : `${ground.perspective ? "Flat" : "To scale, the perspective is still in it"}; ${taps.length} points, ${ground.offMm.toFixed(1)} mm off on the whole. Choose a port in the drawing and press where it is.`)}
      </p>
      {photo ? (
        <>
          <label className="flex items-center gap-2">
            <span className="text-second text-soft">Next tap is</span>
            <select className="field" value={next} onChange={(e) => setNext(e.target.value)}>
              {points.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.label} ({p.xMm}, {p.yMm} mm)
                </option>
              ))}
              {next === "" ? <option value="">all are tapped</option> : null}
            </select>
            <Button disabled={next === ""} onClick={() => tap(photo.width / 2, photo.height / 2)}>
              Type where it is
            </Button>
          </label>
          <div
            className="relative cursor-cell touch-none"
            onClick={(e) => {
              const box = e.currentTarget.getBoundingClientRect();
              tap(((e.clientX - box.left) / box.width) * photo.width, ((e.clientY - box.top) / box.height) * photo.height);
            }}
          >
            {/* biome-ignore lint/performance/noImgElement: a photo of the shop's own store */}
            <img alt={`${type.name}, as photographed`} src={`/photos/${photo.id}`} className="w-full" draggable={false} />
            <svg viewBox={`0 0 ${photo.width} ${photo.height}`} className="pointer-events-none absolute inset-0 size-full" aria-hidden>
              {[...taps, ...free].map((t, i) => (
                <g key={`${String(i)}${t.xPx}`}>
                  <circle cx={t.xPx} cy={t.yPx} r={photo.width / 60} fill="none" stroke="#fff" strokeWidth={photo.width / 150} />
                  <circle cx={t.xPx} cy={t.yPx} r={photo.width / 60} fill="none" stroke="#000" strokeWidth={photo.width / 320} />
                </g>
              ))}
            </svg>
          </div>
          <ul aria-label="Points tapped" className="text-second">
            {taps.map((t) => (
              <li key={`${t.xMm} ${t.yMm}`} className="flex items-center gap-2 border-t border-rule py-1">
                <span className="min-w-0 flex-1">{nameOf(t)}</span>
                {(["xPx", "yPx"] as const).map((k) => (
                  <input
                    key={k}
                    className="field mono w-20"
                    type="number"
                    aria-label={`${nameOf(t)}: ${k === "xPx" ? "from the left" : "from the top"}, px of the photo`}
                    value={t[k]}
                    onChange={(e) => {
                      const n = Number(e.target.value);
                      if (Number.isFinite(n) && n >= 0) keep(taps.map((x) => (x === t ? { ...x, [k]: n } : x)));
                    }}
                  />
                ))}
                <Button aria-label={`Take back ${nameOf(t)}`} onClick={() => keep(taps.filter((x) => x !== t))}>
                  Take back
                </Button>
              </li>
            ))}
          </ul>
          <label className="flex flex-wrap items-center gap-2">
            <span className="text-second text-soft">Or two taps that are so many mm apart</span>
            <input
              className="field mono w-24"
              type="number"
              min={1}
              max={3000}
              value={lengthMm}
              onChange={(e) => {
                setLengthMm(e.target.value);
                setFree([]);
              }}
            />
            <span className="text-second text-soft">{lengthMm === "" ? "" : free.length === 0 ? "Tap the first." : "Tap the second."}</span>
          </label>
        </>
      ) : null}
    </div>
  );
}
