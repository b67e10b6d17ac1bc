import NextLink from "next/link";
import type { ComponentProps } from "react";

/**
 * A link that fetches its page when it is followed, and not before: pages here are of this moment, and a screen that is renewed with
 * each change would fetch all that it links to each time.
 */
export default function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />;
}
