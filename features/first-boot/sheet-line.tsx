"use client";
import { type ReactNode, useState } from "react";
import type { Expectation } from "../../core/machine";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { StateShape } from "../../ui/marks";

export const ROW =
  "grid min-h-11 grid-cols-[minmax(0,1fr)_8rem_19.5rem] items-center gap-x-3 border-t border-rule px-4 py-0.5 max-[760px]:grid-cols-1 max-[760px]:gap-y-2 max-[760px]:py-3";
const KEY = "min-h-9 whitespace-nowrap px-2.5";

/** What a row is of, and why, the why in one line until somebody wants all of it. */
export function What({ what, because, wrong }: { what: string; because: string; wrong?: string | undefined }) {
  return (
    <details className="group min-w-0 leading-tight">
      <summary className="cursor-pointer list-none">
        <span className="block truncate font-semibold">{what}</span>
        {wrong ? <span className="block text-second text-stop">{wrong}</span> : null}
        <span className="block truncate text-second text-soft group-open:whitespace-normal">{because}</span>
      </summary>
    </details>
  );
}

/** One line of the sheet: what will be seen beside what is wanted, and keys for what was. */
export function SheetLine({
  line,
  seen,
  busy,
  first,
  staysFree,
  move,
  near,
  fault,
  photo,
  onSee,
}: {
  line: Expectation;
  seen: JobView["seen"][string] | undefined;
  busy: boolean;
  first: boolean;
  /** The plan leaves it free: that it does not work is agreed. */
  staysFree: boolean;
  /** What puts it right, where a plug is on record in a wrong place. */
  move: string | undefined;
  /** Leads that pass by it, where it ticks or rubs. */
  near?: readonly { tag: string; name: string; mm: number }[] | undefined;
  /** The latest fault that it showed. */
  fault?: { number: number; isOpen: boolean; finding: string } | undefined;
  photo: ReactNode;
  onSee: (value: string) => void;
}) {
  const [typed, setTyped] = useState("");
  const unit = line.unit ? ` ${line.unit}` : "";
  const reached = line.expected !== "not reached" && line.expected !== "not seen";
  const wrong = !line.works && reached && !staysFree && line.expected !== line.wanted ? `wanted ${line.wanted}${unit}` : undefined;
  return (
    <li className={cx(ROW, first && "bg-sheet")} data-first={first || undefined}>
      <What what={line.what} because={line.because} {...(move ? { wrong: move } : {})} />
      <span className={cx("leading-tight", line.unit && "mono")}>
        <span className="sr-only">Expected: </span>
        {line.expected}
        {line.expected === "not seen" ? "" : unit}
        {line.tolerance ? <span className="text-soft"> ±{line.tolerance}</span> : null}
        {wrong ? <span className="block truncate text-second text-stop">{wrong}</span> : null}
        {staysFree && !line.works ? <span className="block truncate text-second text-soft">stays free</span> : null}
        {seen?.asExpected ? (
          <span className="block truncate font-sans text-second text-soft">
            {seen.simulated ? "simulated" : seen.by}
            {seen.first ? `; first ${seen.first}` : ""}
          </span>
        ) : null}
      </span>
      <div className="flex items-center gap-2">
        <div className="flex min-w-0 flex-1 flex-wrap items-center gap-2">
          {line.otherwise.length > 0 ? (
            <div role="group" aria-label={`${line.what}: seen`} className="flex flex-wrap gap-2">
              {[line.expected, ...line.otherwise.filter((w) => w !== "not reached" || seen?.value === w)].map((w) => (
                <Button key={w} className={KEY} aria-pressed={seen?.value === w} disabled={busy} onClick={() => onSee(w)}>
                  {seen?.value === w ? <StateShape state={w === line.expected ? "checked" : "wrong"} /> : null}
                  {w}
                </Button>
              ))}
            </div>
          ) : (
            <form
              className="flex gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                if (typed.trim()) {
                  onSee(typed.trim());
                  setTyped("");
                }
              }}
            >
              <input
                className="field mono min-h-9 w-16"
                aria-label={`${line.what} seen${unit}`}
                inputMode="decimal"
                value={typed}
                placeholder={seen?.value ?? ""}
                onChange={(e) => setTyped(e.target.value)}
              />
              <Button type="submit" className={KEY} disabled={busy || !typed.trim()}>
                Record
              </Button>
              <Button className={KEY} aria-pressed={seen?.value === line.expected} disabled={busy} onClick={() => onSee(line.expected)}>
                {seen?.value === line.expected ? <StateShape state="checked" /> : null}As expected
              </Button>
            </form>
          )}
          {seen && !seen.asExpected ? (
            <span className="text-second text-stop">
              seen {seen.value}
              {unit}: {fault?.isOpen ? `fault ${fault.number} is open` : "not as expected"}, {seen.simulated ? "simulated" : seen.by}
              {seen.first ? `; first ${seen.first}` : ""}
            </span>
          ) : null}
        </div>
        {photo}
      </div>
      {fault && !fault.isOpen ? (
        <p className="col-span-full pb-1 text-second text-soft">
          Fault {fault.number}, closed: {fault.finding}.
        </p>
      ) : null}
      {near ? (
        <p className="col-span-full pb-1 text-second">
          {near.length > 0
            ? `Near its blades: ${near.map((n) => `${n.tag} ${n.name} (${n.mm} mm)`).join(", ")}. Off at once, mains out, lead aside and tied. None of these: the fan itself.`
            : "No lead that is on record passes near: look for a loose tie or screw, else the fan itself. Off at once, mains out."}
        </p>
      ) : null}
    </li>
  );
}
