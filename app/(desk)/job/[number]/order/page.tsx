import type { Metadata } from "next";
import { OrderScreen } from "../../../../../features/order/order-screen";
import { jobPage } from "../../../../../server/read/job-page";

export const metadata: Metadata = { title: "Order" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { steps, head, plan } = await jobPage((await params).number);
  return <OrderScreen view={{ steps, head, plan }} />;
}
