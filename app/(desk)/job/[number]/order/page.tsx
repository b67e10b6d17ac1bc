import type { Metadata } from "next";
import { OrderScreen } from "../../../../../features/order/order-screen";
import { jobPage } from "../../../../../server/read/job-page";
import { orderSlice } from "../../../../../server/read/slices";

export const metadata: Metadata = { title: "Order" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  return <OrderScreen view={orderSlice(await jobPage((await params).number))} />;
}
