import type { Metadata } from "next";
import { ReceiptScreen } from "../../../../../features/receipt/receipt-screen";
import { whoIsIt } from "../../../../../server/kernel/who";
import { receiptPage } from "../../../../../server/read/job-page";

export const metadata: Metadata = { title: "Receipt" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const view = await receiptPage((await params).number);
  const who = await whoIsIt();
  return <ReceiptScreen view={view} who={who?.name ?? null} />;
}
