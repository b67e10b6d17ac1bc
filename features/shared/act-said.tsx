import type { ReactNode } from "react";
import { cx } from "../../ui/cx";
import type { Acting } from "../frame/use-act";

/** What an action came to, in its sentence and what there is more to say; before one, what stands there instead. */
export function ActSaid({ act, className, children }: { act: Acting; className?: string; children?: ReactNode }) {
  return (
    <p role="status" className={cx("text-second", className)}>
      {act.sentence || children}
      {act.more.map((m) => (
        <span key={m} className="block">
          {m}
        </span>
      ))}
    </p>
  );
}
