/** Maker and name, without saying the maker twice. */
export const fullName = (t: { maker: string; name: string }): string =>
  t.maker === "" || t.name.startsWith(t.maker) ? t.name : `${t.maker} ${t.name}`;
