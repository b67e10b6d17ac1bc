"use client";
import { useState } from "react";
import type { Graph } from "../../core/assembly";
import { byDraw, efficiencyPercent, efficiencyPoints, plugDrops, powerBudget, RAIL_NAME, RAIL_TOLERANCE_V } from "../../core/power";
import { Button } from "../../ui/button";
import { LineChart } from "../../ui/line-chart";
import { Meter } from "../../ui/meter";
import { wishesAction } from "../actions/parts";
import { useAct } from "../frame/use-act";

const WORD = { idle: "Idle", typical: "Typical", peak: "Peak", start: "First second" } as const;
const n = (x: number, digits = 0) => x.toFixed(digits);

/** What the machine draws, by moment, rail and plug, against its supply. */
export function PowerView({ graph, number }: { graph: Graph; number: string }) {
  const b = powerBudget(graph);
  const cls = b.supply?.type.ratings.efficiency;
  const { mainsV } = graph.build.policy;
  const points = efficiencyPoints(cls, mainsV);
  const curve =
    points.length === 0
      ? []
      : Array.from({ length: 20 }, (_, i) => (i + 1) / 20).map((x) => ({ x: x * 100, y: efficiencyPercent(cls, x, mainsV) ?? 0 }));
  const peak = b.moments.find((m) => m.name === "peak");
  return (
    <section aria-label="Power" className="region flex min-w-0 flex-1 flex-col gap-5 p-5">
      <div>
        <h2 className="text-action font-[650]">
          {b.supply
            ? `${n(peak?.dcW ?? 0)} W of ${b.supplyW} W at peak, ${n((peak?.share ?? 0) * 100)} % of ${b.supply.type.name}`
            : `${n(peak?.dcW ?? 0)} W at peak, and no supply in the list`}
        </h2>
        <p className="text-second text-soft">
          {b.headroomW >= 0 ? `${n(b.headroomW)} W left` : `${n(-b.headroomW)} W too much`}. People fit {b.usual.fromW} to {b.usual.toW} W for{" "}
          {b.usual.because}: common practice, a sanity check only.
        </p>
      </div>
      <div className="grid grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-6">
        <table className="self-start">
          <caption className="sr-only">Draw, load, efficiency, mains and heat by moment</caption>
          <thead>
            <tr className="text-left text-second text-soft">
              <th className="font-normal">Moment</th>
              <th className="pl-2 text-right font-normal">Draw</th>
              <th className="pl-2 text-right font-normal">Load</th>
              <th className="pl-2 text-right font-normal">Effic.</th>
              <th className="pl-2 text-right font-normal">Mains</th>
              <th className="pl-2 text-right font-normal">Heat</th>
            </tr>
          </thead>
          <tbody className="mono whitespace-nowrap text-second [&_td]:pl-2">
            {b.moments.map((m) => (
              <tr key={m.name} className="border-t border-rule">
                <th scope="row" className="py-1.5 text-left font-sans font-normal">
                  {WORD[m.name]}
                </th>
                <td className="text-right">{n(m.dcW)} W</td>
                <td className="text-right">{n(m.share * 100)} %</td>
                <td className="text-right">{m.efficiencyPercent === undefined ? "?" : `${n(m.efficiencyPercent, 1)} %`}</td>
                <td className="text-right">{m.mainsW === undefined ? "?" : `${n(m.mainsW)} W`}</td>
                <td className="text-right">{m.heatW === undefined ? "?" : `${n(m.heatW)} W`}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {curve.length > 0 ? (
          <figure>
            <LineChart
              label={`Efficiency of class ${cls} at ${mainsV} V over load, with the machine's moments marked; the table beside it has the values`}
              x={{ title: "load, %", min: 0, max: 100 }}
              y={{ title: "efficiency, %", min: 70, max: 100 }}
              line={curve}
              marks={b.moments
                .flatMap((m) => (m.efficiencyPercent === undefined ? [] : [{ x: m.share * 100, y: m.efficiencyPercent, word: WORD[m.name] }]))
                .sort((one, other) => one.x - other.x)}
            />
            <figcaption className="text-second text-soft">
              Class {cls} at {mainsV} V: straight lines between the class's own points, an estimate below them.
            </figcaption>
          </figure>
        ) : (
          <p className="self-start">This supply has no efficiency class: nothing says what it draws from the mains.</p>
        )}
      </div>
      <div className="grid grid-cols-2 gap-6 max-[760px]:grid-cols-1">
        <div className="flex flex-col gap-2">
          <h3 className="text-key font-[650]">Rails at peak</h3>
          {b.rails.map((r) =>
            r.limitA === undefined ? (
              <p key={r.rail} className="text-second">
                {RAIL_NAME[r.rail]}: {n(r.peakA, 1)} A, no limit known
              </p>
            ) : (
              <Meter key={r.rail} label={RAIL_NAME[r.rail]} value={Number(n(r.peakA, 1))} most={r.limitA} unit="A" />
            ),
          )}
        </div>
        <div>
          <h3 className="mb-1 text-key font-[650]">Plugs</h3>
          <table className="w-full">
            <caption className="sr-only">Sockets that want a plug, and plugs on the supply's cables</caption>
            <thead>
              <tr className="text-left text-second text-soft">
                <th className="font-normal">Kind</th>
                <th className="text-right font-normal">wanted</th>
                <th className="text-right font-normal">on cables</th>
              </tr>
            </thead>
            <tbody>
              {b.connectors.map((c) => (
                <tr key={c.family} className="border-t border-rule">
                  <th scope="row" className="py-1 text-left font-normal">
                    {c.name}
                  </th>
                  <td className="mono text-right">{c.needed}</td>
                  <td className={c.there < c.needed ? "mono text-right font-semibold text-stop" : "mono text-right"}>{c.there}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div>
          <h3 className="mb-1 text-key font-[650]">Volts lost on the way, of {RAIL_TOLERANCE_V} V</h3>
          <table className="w-full">
            <caption className="sr-only">Volts lost between supply and each 12 V plug of CPU and cards, at peak</caption>
            <thead>
              <tr className="text-left text-second text-soft">
                <th className="font-normal">Socket</th>
                <th className="text-right font-normal">amps</th>
                <th className="text-right font-normal">length</th>
                <th className="text-right font-normal">lost</th>
              </tr>
            </thead>
            <tbody>
              {plugDrops(graph)
                .slice(0, 8)
                .map((d) => (
                  <tr key={d.port} className="border-t border-rule">
                    <th scope="row" className="py-1 text-left font-normal">
                      {d.name}
                      {d.planned ? null : <span className="block text-second text-soft">by its longest cable</span>}
                    </th>
                    <td className="mono whitespace-nowrap pl-2 text-right">{n(d.currentA, 1)} A</td>
                    <td className="mono whitespace-nowrap pl-2 text-right">{d.lengthMm} mm</td>
                    <td
                      className={
                        d.dropV > RAIL_TOLERANCE_V / 2
                          ? "mono whitespace-nowrap pl-2 text-right font-semibold text-stop"
                          : "mono whitespace-nowrap pl-2 text-right"
                      }
                    >
                      {n(d.dropV, 2)} V
                    </td>
                  </tr>
                ))}
            </tbody>
          </table>
        </div>
        <Upgrade graph={graph} number={number} left={b.headroomAfterUpgradeW} />
      </div>
      <div className="grid grid-cols-2 gap-6 max-[760px]:grid-cols-1">
        <div>
          <h3 className="mb-1 text-key font-[650]">Who draws it</h3>
          <table className="w-full">
            <caption className="sr-only">Draw by part</caption>
            <thead>
              <tr className="text-left text-second text-soft">
                <th className="font-normal">Part</th>
                <th className="text-right font-normal">idle</th>
                <th className="text-right font-normal">peak</th>
              </tr>
            </thead>
            <tbody>
              {byDraw(b)
                .slice(0, 12)
                .map((d) => (
                  <tr key={d.part.id} className="border-t border-rule">
                    <th scope="row" className="py-1 text-left font-normal">
                      {d.part.part.label ?? d.part.type.name}
                    </th>
                    <td className="mono text-right">{n(d.idleW, 1)} W</td>
                    <td className="mono text-right">{n(d.peakW, 1)} W</td>
                  </tr>
                ))}
            </tbody>
          </table>
        </div>
      </div>
    </section>
  );
}

function Upgrade({ graph, number, left }: { graph: Graph; number: string; left: number }) {
  const { wishes } = graph.build;
  const act = useAct();
  const [what, setWhat] = useState(wishes.upgrade);
  const [watts, setWatts] = useState(String(wishes.upgradeW));
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () => wishesAction({ number, upgrade: what, upgradeW: Number(watts), saw: { upgrade: wishes.upgrade, upgradeW: wishes.upgradeW } }),
          () => "Recorded.",
        );
      }}
    >
      <h3 className="text-key font-[650]">A later upgrade</h3>
      <p className="text-second">
        {wishes.upgradeW > 0
          ? `${wishes.upgrade || "It"} draws ${wishes.upgradeW} W more: ${left >= 0 ? `${n(left)} W would be left` : `${n(-left)} W too little`}.`
          : "None named yet."}
      </p>
      <label>
        <span className="block text-second text-soft">What may come</span>
        <input className="field w-full" maxLength={200} value={what} onChange={(e) => setWhat(e.target.value)} />
      </label>
      <div className="flex items-end gap-2">
        <label className="w-32">
          <span className="block text-second text-soft">Watts more</span>
          <input className="field mono w-full" type="number" min={0} max={2000} value={watts} onChange={(e) => setWatts(e.target.value)} />
        </label>
        <Button type="submit" disabled={act.pending}>
          Record
        </Button>
      </div>
      <p role="status" className="text-second">
        {act.sentence}
      </p>
    </form>
  );
}
