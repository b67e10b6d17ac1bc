"use client";
import { User } from "lucide-react";
import { useRouter } from "next/navigation";
import { useTransition } from "react";
import { sitDownAction } from "./actions";

/** Who sits here. Everything done is recorded under this name. */
export function Person({ people, who }: { people: { id: string; name: string; role: string }[]; who: { id: string; name: string } | null }) {
  const [pending, start] = useTransition();
  const router = useRouter();
  return (
    <label className="flex items-center gap-2">
      <User size={16} aria-hidden />
      <span className="sr-only">Who you are</span>
      <select
        className="field"
        aria-label="Who you are"
        value={who?.id ?? ""}
        disabled={pending}
        onChange={(e) => {
          const id = e.target.value;
          start(async () => {
            await sitDownAction(id);
            router.refresh();
          });
        }}
      >
        {who ? null : <option value="">Choose who you are</option>}
        {people.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  );
}
