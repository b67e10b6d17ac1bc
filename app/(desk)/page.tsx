import { BenchesScreen } from "../../features/benches/benches-screen";
import { benchesData } from "../../server/views/job-page";

export default async function Page() {
  return <BenchesScreen first={await benchesData()} />;
}
