"use client";
import { useMemo, useState } from "react";
import { type Air, airOf, soundAtDb } from "../../core/air";
import type { Graph } from "../../core/assembly";
import type { SceneBox } from "../../core/scene";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { SeverityShape } from "../../ui/marks";
import { placePartAction, wishesAction } from "../actions/parts";
import { MachineView } from "../drawing/machine-view";
import { useAct } from "../frame/use-act";
import { showedOf } from "../shared/showed";

const SIGN = {
  over: "More in than out",
  under: "More out than in",
  balanced: "In and out balanced",
  still: "No fan moves air",
  unknown: "Not all of the air is known",
} as const;
const n = (x: number | undefined, digits = 0) => x?.toFixed(digits) ?? "not known";

/** Which way the air goes, how much of it, and how loud that is. */
export function AirView({ graph, number, chosen, onChoose }: { graph: Graph; number: string; chosen: string; onChoose: (id: string) => void }) {
  const [share, setShare] = useState(graph.build.settings.fanShare);
  const act = useAct();
  const air = airOf(graph, share);
  const least = air.unknown.length > 0 ? "at least " : "";
  const saved = graph.build.settings.fanShare;
  const wish = graph.build.wishes.noiseDb;
  return (
    <>
      <section
        aria-label="Air in the case"
        className="flex w-[clamp(432px,56%,1000px)] max-w-full shrink-0 flex-col overflow-hidden border-r border-rule p-4"
      >
        <h2 className="text-key font-[650]">{SIGN[air.sign]}</h2>
        <p className="text-second text-soft">From the side, rear to the left, to scale. Arrows as wide as their flow.</p>
        <AirPlan graph={graph} air={air} chosen={chosen} onChoose={onChoose} />
      </section>
      <section aria-label="Numbers of the air" className="region flex min-w-0 flex-1 flex-col gap-4 p-4">
        <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
          <Row what="In" value={`${least}${n(air.inM3h)} m³/h`} />
          <Row what="Out" value={`${least}${n(air.outM3h)} m³/h`} />
          <Row what={`Carries ${n(air.heatW)} W away at 10 K`} value={`${n(air.neededM3h)} m³/h`} />
          <Row what={`Noise at ${n(share * 100)} %`} value={`${n(air.noiseDb, 1)} dB(A)`} bad={wish !== undefined && air.noiseDb > wish} />
          <Row what="Noise at the first start, full speed" value={`${n(air.noiseFullDb, 1)} dB(A)`} />
          {wish === undefined ? null : <Row what="Asked for at most" value={`${wish} dB(A)`} />}
        </dl>
        <p className="text-second">{air.why}</p>
        <label className="flex flex-col gap-1">
          <span className="text-second">Planned speed: {n(share * 100)} % of full</span>
          <input type="range" min={20} max={100} step={5} value={Math.round(share * 100)} onChange={(e) => setShare(Number(e.target.value) / 100)} />
        </label>
        {Math.abs(share - saved) > 0.001 ? (
          <Button
            className="self-start"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => wishesAction({ number, fanShare: share, saw: { fanShare: saved } }),
                () => "Planned speed recorded.",
              )
            }
          >
            Plan with {n(share * 100)} %
          </Button>
        ) : null}
        <p role="status" className="text-second">
          {act.sentence}
        </p>
        <p className="text-second">
          {air.unknown.length > 0
            ? "Which of them could be left out cannot be said while not all of the air is known."
            : air.spare.length === 0
              ? "Every fan is needed for the heat or for the pressure."
              : `Could be left out: ${air.spare.map((p) => p.part.label ?? p.type.name).join(", ")}. The air is enough without, and its sign stays.`}
        </p>
        <table className="w-full">
          <caption className="sr-only">Each fan: way, flow, noise</caption>
          <thead>
            <tr className="text-left text-second text-soft">
              <th className="font-normal">Fan</th>
              <th className="font-normal">blows</th>
              <th className="text-right font-normal">m³/h</th>
              <th className="text-right font-normal">dB(A)</th>
            </tr>
          </thead>
          <tbody>
            {air.fans.map((f) => (
              <tr key={f.part.id} className={cx("border-t border-rule", f.part.id === chosen && "bg-sheet")}>
                <th scope="row" className="py-1 text-left font-normal">
                  <button type="button" className="text-left underline-offset-2 hover:underline" onClick={() => onChoose(f.part.id)}>
                    {f.part.part.label ?? f.part.type.name}
                  </button>
                  {f.against ? (
                    <span className="flex items-center gap-1 text-second">
                      <SeverityShape severity="warn" size={12} />
                      {f.against}
                    </span>
                  ) : f.through.length > 0 ? (
                    <span className="block text-second text-soft">through {f.through.join(" and ")}</span>
                  ) : null}
                </th>
                <td>
                  <Button
                    className="min-w-12 px-2 text-second"
                    aria-label={`${f.part.part.label ?? f.part.type.name} blows ${f.blows}; turn it round`}
                    disabled={act.pending}
                    onClick={() =>
                      act.run(
                        () =>
                          placePartAction({
                            number,
                            part: f.part.id,
                            blows: f.blows === "in" ? "out" : "in",
                            saw: showedOf(
                              graph.build.parts.find((p) => p.id === f.part.id),
                              { blows: true },
                            ),
                          }),
                        () => "Turned round.",
                      )
                    }
                  >
                    {f.blows}
                  </Button>
                </td>
                <td className="mono text-right">{n(f.flowM3h)}</td>
                <td className="mono text-right">{n(f.noiseDb, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="text-second text-soft">
          A mounted fan moves 85 % of its printed flow, 80 % of that behind a filter, 60 % through a radiator (common practice). Sound falls with 50
          log10 of speed (fan law): half speed is {n(-(soundAtDb(60, 0.5) - 60))} dB less.
        </p>
      </section>
    </>
  );
}

function Row({ what, value, bad }: { what: string; value: string; bad?: boolean }) {
  return (
    <div className="contents">
      <dt className="text-second">{what}</dt>
      <dd className={cx("mono text-right", bad && "font-semibold text-stop")}>{value}</dd>
    </div>
  );
}

const MOST = { w: 366, h: 500 };
/** From the middle of a fan to the tip of its arrow, px. */
const ARROW = { tail: 26, head: 30, wing: 9 };

function AirPlan({ graph, air, chosen, onChoose }: { graph: Graph; air: Air; chosen: string; onChoose: (id: string) => void }) {
  const shell = [...graph.parts.values()].find((p) => p.type.kind === "case" && !p.cable);
  const on = useMemo(() => new Set([chosen]), [chosen]);
  if (!shell) return <p className="mt-4">No case in the parts list. Add one.</p>;
  const most = Math.max(1, ...air.fans.map((f) => f.flowM3h ?? 0));
  return (
    <MachineView
      graph={graph}
      most={MOST}
      fills
      on={on}
      names={onlyRest}
      onPart={onChoose}
      label={`Air in ${shell.type.name}: ${air.fans.map((f) => `${f.part.part.label ?? f.part.type.name} blows ${f.blows}`).join(", ")}`}
    >
      {(px) =>
        air.fans.map((f) => {
          const { x, y } = px.at(f.at);
          // Outwards at each face; a side fan blows towards or away from the reader.
          const out = f.region === "front" ? [1, 0] : f.region === "rear" ? [-1, 0] : f.region === "top" ? [0, -1] : [0, 1];
          const dir = f.blows === "out" ? 1 : -1;
          const [dx, dy] = [(out[0] ?? 0) * dir, (out[1] ?? 0) * dir];
          const { tail, head, wing } = ARROW;
          const colour = f.against ? "var(--stop)" : "var(--ink)";
          return (
            <g key={f.part.id} className="cursor-pointer" onClick={() => onChoose(f.part.id)}>
              <title>{`${f.part.part.label ?? f.part.type.name}: ${f.blows}, ${f.flowM3h === undefined ? "flow not known" : `${n(f.flowM3h)} m³/h`}`}</title>
              {f.region === "side" ? (
                <text x={x} y={y + 4} textAnchor="middle" fontSize="12" fill={colour} paintOrder="stroke" stroke="var(--sheet)" strokeWidth="3">
                  {f.blows}
                </text>
              ) : (
                <>
                  <path
                    d={`M${x - dx * tail} ${y - dy * tail}L${x + dx * (head - 12)} ${y + dy * (head - 12)}`}
                    stroke={colour}
                    strokeWidth={2 + ((f.flowM3h ?? 0) / most) * 7}
                    strokeDasharray={f.flowM3h === undefined ? "4 4" : undefined}
                  />
                  <path
                    d={`M${x + dx * head} ${y + dy * head}L${x + dx * (head - 14) - dy * wing} ${y + dy * (head - 14) + dx * wing}L${x + dx * (head - 14) + dy * wing} ${y + dy * (head - 14) - dx * wing}z`}
                    fill={colour}
                  />
                </>
              )}
            </g>
          );
        })
      }
    </MachineView>
  );
}

/** Where the arrows are no words stand. */
const onlyRest = (b: SceneBox) => b.kind !== "fan" && b.kind !== "light";
