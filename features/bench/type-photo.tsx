import type { Graph } from "../../core/assembly";
import type { Step } from "../../core/order";
import { groundOf, pxOf } from "../../core/photo";
import type { TypePhotoView } from "../../server/shelf/type-photo";

/** The shop's own photo of the part that a plug goes into, with the port marked where it is. Nothing where there is none, or no point of it is known. */
export function PortInPhoto({ graph, step, photos }: { graph: Graph; step: Step; photos: Readonly<Record<string, TypePhotoView>> }) {
  const port = step.kind === "plug" && step.port ? graph.ports.get(step.port) : undefined;
  const photo = port ? photos[port.part.type.id] : undefined;
  const at = port?.port.at;
  if (!port || !photo || !at) return null;
  const ground = groundOf(photo.taps);
  if (typeof ground === "string") return null;
  const [x, y] = pxOf(ground, at.xMm, at.yMm);
  if (x < 0 || y < 0 || x > photo.width || y > photo.height) return null;
  const r = photo.width / 28;
  return (
    <figure className="mt-3">
      <div className="relative">
        {/* biome-ignore lint/performance/noImgElement: a photo of the shop's own store */}
        <img
          alt={`${port.part.type.name}, as photographed, ${port.port.label} marked`}
          src={`/photos/${photo.id}`}
          className="w-full rounded border border-edge"
        />
        <svg viewBox={`0 0 ${photo.width} ${photo.height}`} className="pointer-events-none absolute inset-0 size-full" aria-hidden>
          <circle cx={x} cy={y} r={r} fill="none" stroke="#fff" strokeWidth={r / 2.5} />
          <circle cx={x} cy={y} r={r} fill="none" stroke="#000" strokeWidth={r / 6} />
        </svg>
      </div>
      <figcaption className="text-soft">
        {port.port.label} in our photo, {Math.max(1, Math.round(ground.offMm))} mm off at most points
      </figcaption>
    </figure>
  );
}
