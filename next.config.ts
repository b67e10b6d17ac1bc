import { withSerwist } from "@serwist/turbopack";
import type { NextConfig } from "next";

const config: NextConfig = {
  poweredByHeader: false,
  devIndicators: false,
  // The title comes with the page, for everybody: streamed after it, it is away for a moment at each refresh.
  htmlLimitedBots: /.*/,
  // Its WebAssembly file is found beside it, not in a bundle.
  // The others look for their database drivers, or their native library, by name.
  serverExternalPackages: ["highs", "rate-limiter-flexible", "@node-rs/argon2"],
  // A page that is open stays open while nothing answers.
  experimental: { serverActions: { bodySizeLimit: "5mb" }, useOffline: true },
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

export default withSerwist(config);
