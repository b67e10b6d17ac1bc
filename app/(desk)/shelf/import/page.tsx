import type { Metadata } from "next";
import { ImportScreen } from "../../../../features/shelf/import-screen";

export const metadata: Metadata = { title: "Part types from a file" };

export default function Page() {
  return <ImportScreen />;
}
