// Plain JavaScript: a server reads it at each start, and would put TypeScript into JavaScript first.
import { PHASE_PRODUCTION_SERVER } from "next/constants.js";

/** @type {import("next").NextConfig} */
const config = {
  poweredByHeader: false,
  // Which build this is: pages and the server compare it (features/frame/slice-client.ts).
  env: { IMBRA_BUILD: process.env.IMBRA_BUILD ?? "" },
  devIndicators: false,
  // npm test looks at all types, once.
  typescript: { ignoreBuildErrors: true },
  // The title comes with the page, for everybody: streamed after it, it is away for a moment at each refresh.
  htmlLimitedBots: /.*/,
  // Its WebAssembly file is found beside it, not in a bundle.
  // The others look for their database drivers, or their native library, by name.
  serverExternalPackages: ["highs", "piscina", "rate-limiter-flexible", "@node-rs/argon2"],
  // A page that is open stays open while nothing answers.
  // What may be read of a body behind proxy.ts: a photo as large as is said (MOST_PHOTO_BYTES), whole.
  experimental: { serverActions: { bodySizeLimit: "5mb" }, proxyClientMaxBodySize: "26mb", useOffline: true },
  async headers() {
    return [
      {
        source: "/:path*",
        headers: [
          { key: "X-Content-Type-Options", value: "nosniff" },
          { key: "X-Frame-Options", value: "DENY" },
          { key: "Referrer-Policy", value: "same-origin" },
        ],
      },
    ];
  },
};

/** The service worker is made when the application is built: a server that starts has no need of its tools. */
export default async function configFor(phase) {
  if (phase === PHASE_PRODUCTION_SERVER) return config;
  const { withSerwist } = await import("@serwist/turbopack");
  return withSerwist(config);
}
