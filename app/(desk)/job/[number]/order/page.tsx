import type { Metadata } from "next";
import { OrderScreen } from "../../../../../features/order/order-screen";
import { jobData } from "../../../../../server/views/job-page";

export const metadata: Metadata = { title: "Order" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  return <OrderScreen first={await jobData((await params).number, "order")} />;
}
