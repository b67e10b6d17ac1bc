const YEAR_S = 31_536_000;

/** Keeps in a cookie, which the next page is drawn with, how this browser shows itself; `system` forgets it. Nothing of the shop. */
export function keepTheme(theme: "light" | "dark" | "system"): void {
  // biome-ignore lint/suspicious/noDocumentCookie: a reload right after must find it; the store of cookies answers later, and not everywhere.
  document.cookie = `theme=${theme}; path=/; samesite=lax; max-age=${theme === "system" ? 0 : YEAR_S}`;
}
