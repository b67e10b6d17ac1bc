"use client";
import { User } from "lucide-react";
import { useRouter } from "next/navigation";
import { Button } from "../../ui/button";
import { Menu } from "../../ui/menu";
import { signOutAction } from "../actions/people";
import { forgetPages } from "../device/forget-pages";
import { dropTurn } from "../frame/worker";

/** Who is signed in here; everything done is recorded under this name. */
export function PersonMenu({ name, keepsPeople }: { name: string; keepsPeople: boolean }) {
  const router = useRouter();
  return (
    <Menu
      trigger={
        <Button aria-label={`Signed in as ${name}`}>
          <User size={16} aria-hidden />
          <span className="max-w-40 truncate max-[600px]:sr-only">{name}</span>
        </Button>
      }
      items={[
        { word: "You: password, PIN, sign-ins", onSelect: () => router.push("/you") },
        { word: "The shop", onSelect: () => router.push("/shop") },
        ...(keepsPeople ? [{ word: "People", onSelect: () => router.push("/people") }] : []),
        {
          word: "Sign out",
          onSelect: () => {
            dropTurn();
            void signOutAction({})
              .then(() => forgetPages())
              .then(() => window.location.assign("/sign-in"));
          },
        },
      ]}
    />
  );
}
