"use client";
import { CategoryScale, Chart, Filler, LinearScale, LineController, LineElement, PointElement, ScatterController } from "chart.js";
import { useEffect, useRef } from "react";

Chart.register(CategoryScale, Filler, LinearScale, LineController, LineElement, PointElement, ScatterController);

interface Axis {
  title: string;
  min: number;
  max: number;
}

/** A line with marked points, in ink. The values stand in a table beside it: the chart says its label to a screen reader. */
export function LineChart({
  label,
  x,
  y,
  line,
  marks,
  band,
}: {
  label: string;
  x: Axis;
  y: Axis;
  line: { x: number; y: number }[];
  marks: { x: number; y: number; word: string }[];
  /** Between these it was worked out to be. */
  band?: { x: number; low: number; high: number }[] | undefined;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const data = JSON.stringify([line, marks, band ?? []]);
  useEffect(() => {
    const el = canvas.current;
    if (!el) return;
    const [points, dots, between] = JSON.parse(data) as [typeof line, typeof marks, NonNullable<typeof band>];
    const css = getComputedStyle(document.documentElement);
    const ink = css.getPropertyValue("--ink").trim();
    const soft = css.getPropertyValue("--soft").trim();
    const rule = css.getPropertyValue("--rule").trim();
    const axis = (a: Axis) => ({
      type: "linear" as const,
      min: a.min,
      max: a.max,
      title: { display: true, text: a.title, color: soft, font: { size: 12 } },
      ticks: { color: soft, font: { size: 12 } },
      grid: { color: rule },
    });
    const chart = new Chart(el, {
      type: "scatter",
      data: {
        datasets: [
          { type: "line" as const, data: points, borderColor: ink, borderWidth: 2, pointRadius: 0 },
          { data: dots, pointRadius: 5, pointBackgroundColor: ink, pointBorderColor: ink },
          {
            type: "line" as const,
            data: between.map((b) => ({ x: b.x, y: b.high })),
            borderColor: soft,
            borderWidth: 1,
            borderDash: [4, 4],
            pointRadius: 0,
            fill: "+1",
            backgroundColor: `${soft}22`,
          },
          {
            type: "line" as const,
            data: between.map((b) => ({ x: b.x, y: b.low })),
            borderColor: soft,
            borderWidth: 1,
            borderDash: [4, 4],
            pointRadius: 0,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        scales: { x: axis(x), y: axis(y) },
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
      },
      plugins: [
        {
          id: "words",
          afterDatasetsDraw: (c) => {
            const { ctx } = c;
            ctx.save();
            ctx.fillStyle = ink;
            ctx.font = "12px 'Atkinson Hyperlegible Next Variable', sans-serif";
            ctx.textAlign = "center";
            for (const [i, p] of c.getDatasetMeta(1).data.entries()) ctx.fillText(dots[i]?.word ?? "", p.x, p.y + (i % 2 === 0 ? 20 : -12));
            ctx.restore();
          },
        },
      ],
    });
    return () => chart.destroy();
  }, [data, x, y]);
  return (
    <div className="relative h-56">
      <canvas ref={canvas} role="img" aria-label={label} />
    </div>
  );
}
