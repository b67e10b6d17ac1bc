/** The first language of `Accept-Language` that dates can be written in (RFC 9110, 12.5.4); English where none is. */
export function languageOf(header: string | null): string {
  for (const wish of (header ?? "").split(",").slice(0, 10)) {
    const tag = wish.split(";")[0]?.trim() ?? "";
    try {
      if (tag && tag !== "*" && Intl.DateTimeFormat.supportedLocalesOf(tag).length > 0) return tag;
    } catch {
      // Not a tag at all: the next one.
    }
  }
  return "en-GB";
}
