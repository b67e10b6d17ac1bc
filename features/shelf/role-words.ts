import type { PORT_ROLES } from "../../core/catalogue";

/** What a port is for, as a technician would say it. */
const WORDS: Record<(typeof PORT_ROLES)[number], string> = {
  "board-power": "main power of the board",
  "cpu-power": "CPU power",
  "graphics-power": "graphics power",
  "device-power": "power of a device",
  "cpu-fan": "CPU fan header",
  "cpu-optional-fan": "second CPU fan header",
  pump: "pump header",
  "case-fan": "case fan header",
  light: "lighting",
  panel: "front-panel block",
  audio: "front audio",
  usb: "USB",
  "drive-data": "drive data",
  memory: "memory slot",
  cpu: "CPU socket",
  expansion: "expansion slot",
  outlet: "outlet of a supply",
};

export const roleWord = (role: string): string => (WORDS as Record<string, string>)[role] ?? role;
