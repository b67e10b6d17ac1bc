import "server-only";
import { notFound } from "next/navigation";
import { see } from "../unit/door";
import { defaultsView } from "./change-defaults";
import type { ShopDefaults } from "./defaults";

export async function shopPage(): Promise<ShopDefaults> {
  const view = await see(defaultsView, {});
  if (view === undefined) notFound();
  return view;
}
