import type { Metadata } from "next";
import { OrderScreen } from "../../../../../features/order/order-screen";
import { jobPage } from "../../../../../server/views/job-page";
import { orderSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Order" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  return <OrderScreen view={orderSlice(await jobPage((await params).number))} />;
}
