import Link from "../../ui/link";
import { PAPER_NAMES } from "./paper-names";

const LABELS = [
  ["machine", "Label for the machine"],
  ["leads", "Labels for leads"],
  ["bag", "Label for the bag"],
  ["box", "Labels for the box"],
] as const;

/** The papers of the job: each on screen, and from there as PDF. */
export function Papers({ number }: { number: string }) {
  const files = `/files/job/${encodeURIComponent(number)}`;
  return (
    <section aria-label="Papers" className="mt-4">
      <h2 className="text-key font-[650]">Papers</h2>
      <ul className="flex flex-wrap gap-2">
        {(Object.keys(PAPER_NAMES) as (keyof typeof PAPER_NAMES)[]).map((k) => (
          <li key={k}>
            <Link className="key no-underline" href={`/job/${encodeURIComponent(number)}/paper?kind=${k}`}>
              {PAPER_NAMES[k]}
            </Link>
          </li>
        ))}
        <li>
          <a className="key no-underline" href={`${files}/as-built.pdf`} download>
            For the next technician
          </a>
        </li>
        <li>
          <a className="key no-underline" href={`${files}/archive.zip`} download>
            Archive of the job
          </a>
        </li>
        {LABELS.map(([kind, word]) => (
          <li key={kind}>
            <a className="key no-underline" href={`${files}/${kind}-labels.pdf`} download>
              {word}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
