const first = (agent: string, list: readonly (readonly [RegExp, string])[]) => list.find(([is]) => is.test(agent))?.[1];

/** Browser family and system of a user agent, in a few words for a list of sign-ins; no more of it is kept. */
export function deviceWords(agent: string): string {
  const system = first(agent, [
    [/Android/, "an Android device"],
    [/iPhone|iPad/, "a phone or tablet"],
    [/Windows/, "Windows"],
    [/Mac OS/, "a Mac"],
    [/Linux|X11|CrOS/, "Linux"],
  ]);
  return agent === "" ? "an unnamed program" : `a browser on ${system ?? "an unknown system"}`;
}
