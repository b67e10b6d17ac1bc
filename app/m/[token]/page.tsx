import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { ForClientScreen } from "../../../features/handover/for-client-screen";
import { isLanguage, saidPaper } from "../../../paper/said";
import { clientPageOf } from "../../../server/handover/client-page";

export const metadata: Metadata = { title: "Your machine", robots: { index: false, follow: false, nocache: true }, referrer: "no-referrer" };
export const dynamic = "force-dynamic";

type Props = { params: Promise<{ token: string }>; searchParams: Promise<{ in?: string | string[] }> };

/** A machine for its client's eyes: whoever has its address, without signing in. */
export default async function Page({ params, searchParams }: Props) {
  const { in: language = "en" } = await searchParams;
  const made = await clientPageOf((await params).token);
  if (made === "none") notFound();
  if (made === "too often")
    return (
      <main className="mx-auto max-w-[640px] p-6">
        <h1 className="text-verdict font-semibold">Asked for too often</h1>
        <p>This page was asked for too often at this moment. Wait a minute, then load it again.</p>
      </main>
    );
  const l = typeof language === "string" && isLanguage(language) ? language : "en";
  return <ForClientScreen paper={saidPaper(made.paper, l)} svg={made.svg} language={l} />;
}
