/** Hours and minutes of a moment (ms since 1970), by this device's own clock. */
export const clock = (ms: number) => new Date(ms).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
