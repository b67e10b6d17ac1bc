/** A small shape with its word is a state. Shapes differ, so that colour is never alone. */
const STATE_WORDS = { free: "free", planned: "planned", plugged: "plugged", checked: "checked", wrong: "wrong", waiting: "waiting" } as const;
export type State = keyof typeof STATE_WORDS;

export function StateShape({ state, size = 15 }: { state: State; size?: number }) {
  const common = { width: size, height: size, viewBox: "0 0 15 15", "aria-hidden": true, className: "shrink-0" } as const;
  switch (state) {
    case "free":
      return (
        <svg {...common}>
          <circle cx="7.5" cy="7.5" r="5.5" fill="none" stroke="currentColor" strokeWidth="2" />
        </svg>
      );
    case "planned":
      return (
        <svg {...common}>
          <rect x="1.5" y="1.5" width="12" height="12" fill="none" stroke="currentColor" strokeWidth="2" />
          <circle cx="7.5" cy="7.5" r="2" fill="currentColor" />
        </svg>
      );
    case "plugged":
      return (
        <svg {...common}>
          <rect x="1" y="1" width="13" height="13" fill="currentColor" />
        </svg>
      );
    case "checked":
      return (
        <svg {...common}>
          <rect x="1" y="1" width="13" height="13" fill="currentColor" />
          <path d="M3.5 8l3 3 5-6.5" fill="none" stroke="var(--sheet)" strokeWidth="2" />
        </svg>
      );
    case "wrong":
      return (
        <svg {...common}>
          <path d="M7.5 0l7.5 7.5-7.5 7.5L0 7.500z" fill="var(--stop)" />
          <path d="M5 5l5 5M10 5l-5 5" stroke="var(--sheet)" strokeWidth="1.8" />
        </svg>
      );
    case "waiting":
      return (
        <svg {...common}>
          <path d="M2 1h11L7.500 7.500zM2 14h11L7.500 7.500z" fill="none" stroke="currentColor" strokeWidth="1.8" />
        </svg>
      );
  }
}

export function StateMark({ state, size = 15, word }: { state: State; size?: number; word?: string }) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <StateShape state={state} size={size} />
      {word ?? STATE_WORDS[state]}
    </span>
  );
}

export type Severity = "stop" | "warn" | "note";
export const SEVERITY_WORD: Record<Severity, string> = { stop: "Stop", warn: "Warn", note: "Note" };

/** Octagon, triangle, dog-eared square. */
export function SeverityShape({ severity, size = 16 }: { severity: Severity; size?: number }) {
  const common = { width: size, height: size, viewBox: "0 0 16 16", "aria-hidden": true, className: "shrink-0" } as const;
  if (severity === "stop")
    return (
      <svg {...common}>
        <path d="M5 1h6l4 4v6l-4 4H5l-4-4V5z" fill="var(--stop)" />
      </svg>
    );
  if (severity === "warn")
    return (
      <svg {...common}>
        <path d="M8 1l7.500 14H.5z" fill="none" stroke="var(--warn)" strokeWidth="2" strokeLinejoin="round" />
      </svg>
    );
  return (
    <svg {...common}>
      <path d="M2 2h8l4 4v8H2zM10 2v4h4" fill="none" stroke="var(--soft)" strokeWidth="1.500" />
    </svg>
  );
}

/** A hatched band with the word first. */
export function Caution({ text, large = false }: { text: string; large?: boolean }) {
  return (
    <p className={large ? "flex items-stretch gap-3 text-bench" : "flex items-stretch gap-2 text-body"}>
      <span aria-hidden className={`caution shrink-0 ${large ? "w-5" : "w-3"}`} />
      <span>
        <strong className="font-bold">Caution.</strong> {text}
      </span>
    </p>
  );
}
