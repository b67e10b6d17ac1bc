import { entityManager } from "../../db";

/** Does the database answer within a moment? */
export async function answers(mostMs = 2000): Promise<boolean> {
  const late = new Promise<false>((resolve) => setTimeout(() => resolve(false), mostMs).unref());
  const asked = entityManager()
    .then((em) => em.execute("select 1"))
    .then(
      () => true,
      () => false,
    );
  return Promise.race([asked, late]);
}
