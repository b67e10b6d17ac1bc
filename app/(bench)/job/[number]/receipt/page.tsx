import type { Metadata } from "next";
import { ReceiptScreen } from "../../../../../features/receipt/receipt-screen";
import { whoIsIt } from "../../../../../server/kernel/who";
import { peopleAtBench } from "../../../../../server/people/pages";
import { toSignIn } from "../../../../../server/unit/door";
import { receiptPage } from "../../../../../server/views/job-page";

export const metadata: Metadata = { title: "Receipt" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const view = await receiptPage((await params).number);
  const [who, people] = await Promise.all([whoIsIt(), peopleAtBench()]);
  if (!who) return toSignIn();
  return <ReceiptScreen view={view} who={{ id: who.id, name: who.name }} people={people} />;
}
