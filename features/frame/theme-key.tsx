"use client";
import { Moon } from "lucide-react";
import { Button } from "../../ui/button";
import { Menu } from "../../ui/menu";
import { keepTheme } from "./keep-theme";

const THEMES = [
  ["light", "Light, for the day"],
  ["dark", "Dark, for dim workshops"],
  ["system", "As the system has it"],
] as const;

/** Light, dark, or whatever the system says until somebody chooses. Kept in a cookie, so that the page arrives right. */
export function ThemeKey() {
  return (
    <Menu
      trigger={
        <Button>
          <Moon size={16} aria-hidden />
          <span className="max-[1180px]:sr-only">Light or dark</span>
        </Button>
      }
      items={THEMES.map(([theme, word]) => ({
        word,
        onSelect: () => {
          document.documentElement.dataset.theme = theme;
          keepTheme(theme);
        },
      }))}
    />
  );
}
