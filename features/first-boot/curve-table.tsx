import type { Curve } from "../../core/setup";
import { LineChart } from "../../ui/line-chart";

/** A fan curve as a chart, and as the table that is typed into the firmware. */
export function CurveTable({ curve, next }: { curve: Curve; next?: Curve | undefined }) {
  const line = [{ x: 20, y: curve.points[0]?.percent ?? 0 }, ...curve.points.map((p) => ({ x: p.atC, y: p.percent })), { x: 100, y: 100 }];
  return (
    <div className="mt-3 grid grid-cols-[1fr_18rem] gap-5 max-[760px]:grid-cols-1">
      <LineChart
        label={`Fan curve of ${curve.name}; the table has its points`}
        x={{ title: `${curve.follows}, °C`, min: 20, max: 100 }}
        y={{ title: "% of full speed", min: 0, max: 100 }}
        line={line}
        marks={curve.points.map((p) => ({ x: p.atC, y: p.percent, word: "" }))}
      />
      <table className="self-start">
        <thead>
          <tr className="text-left text-second text-soft">
            <th className="font-normal">At</th>
            <th className="text-right font-normal">Speed</th>
            <th className="text-right font-normal">Heard</th>
            {next ? <th className="text-right font-normal">Next round</th> : null}
          </tr>
        </thead>
        <tbody className="mono">
          {curve.points.map((p, i) => (
            <tr key={`${p.atC} ${p.percent}`} className="border-t border-rule">
              <td className="py-1">{p.atC} °C</td>
              <td className="text-right">{p.percent} %</td>
              <td className="text-right">{p.noiseDb === undefined ? "" : `${p.noiseDb} dB(A)`}</td>
              {next ? <td className="text-right">{next.points[i]?.percent} %</td> : null}
            </tr>
          ))}
        </tbody>
        {next ? <caption className="caption-bottom pt-2 text-left text-second text-soft">{next.because}</caption> : null}
      </table>
    </div>
  );
}
