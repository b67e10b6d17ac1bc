import { entityManager } from "../../db";
import { BenchesScreen } from "../../features/benches/benches-screen";
import { benches } from "../../server/read/benches";

export default async function Page() {
  return <BenchesScreen {...(await benches(await entityManager()))} today={new Date().toISOString().slice(0, 10)} />;
}
