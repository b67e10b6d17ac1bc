/** A number against its limit: bar and words. */
export function Meter({ label, value, most, unit }: { label: string; value: number; most: number; unit: string }) {
  const share = Math.min(1, most > 0 ? value / most : 1);
  const n = (x: number) => Number(x.toFixed(2)).toString();
  const over = value > most + 1e-9;
  return (
    <div>
      <div className="flex justify-between text-second">
        <span>{label}</span>
        <span className={over ? "font-semibold text-stop" : undefined}>
          {n(value)} {unit} of {n(most)} {unit}
        </span>
      </div>
      <div className="mt-0.5 h-2 border border-edge bg-sheet" aria-hidden>
        <div className={over ? "h-full bg-stop" : "h-full bg-ink"} style={{ width: `${share * 100}%` }} />
      </div>
    </div>
  );
}
