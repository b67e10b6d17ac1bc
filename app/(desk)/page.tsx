import { BenchesScreen } from "../../features/benches/benches-screen";
import { benchesPage } from "../../server/views/job-page";

export default async function Page() {
  return <BenchesScreen {...(await benchesPage())} today={new Date().toISOString().slice(0, 10)} />;
}
