import { entityManager } from "../../db";
import { BenchesScreen } from "../../features/benches/benches-screen";
import { benches } from "../../server/views";

export default async function Page() {
  return <BenchesScreen jobs={await benches(await entityManager())} today={new Date().toISOString().slice(0, 10)} />;
}
