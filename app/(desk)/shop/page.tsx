import type { Metadata } from "next";
import { ShopScreen } from "../../../features/shop/shop-screen";
import { may } from "../../../server/kernel/actor";
import { whoIsIt } from "../../../server/kernel/who";
import { shopPage } from "../../../server/shop/pages";

export const metadata: Metadata = { title: "The shop" };

export default async function Page() {
  return <ShopScreen is={await shopPage()} mayChange={may(await whoIsIt(), "keep the shop")} />;
}
