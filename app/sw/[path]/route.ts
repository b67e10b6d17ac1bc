import { createSerwistRoute } from "@serwist/turbopack";

/** The service worker and what it keeps from the start, made at build time. */
export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  swSrc: "app/service-worker.ts",
  useNativeEsbuild: true,
});
