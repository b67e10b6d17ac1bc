import type { SimulatedMachine } from "./machine";

/** Every so many of the machine's seconds it writes down its readings. */
const EVERY_S = 5;
/** At most so many moments go at once. */
const MOST_AT_ONCE = 200;
/** Real time between two posts, ms. */
const BETWEEN_MS = 1000;

/** Sends a machine's readings to the shop, as the sender on a real machine does. What could not be sent is sent with the next. */
export class Sender {
  #waiting: { atS: number; readings: Record<string, number> }[] = [];
  #lastS = Number.NEGATIVE_INFINITY;
  #lastMs = 0;
  #under = false;
  stands: { sent: number; sentence: string } = { sent: 0, sentence: "" };

  constructor(
    readonly url: string,
    readonly token: string,
  ) {}

  look(machine: SimulatedMachine): void {
    const { clockS } = machine.state();
    if (clockS - this.#lastS >= EVERY_S) {
      const readings = machine.readings();
      if (Object.keys(readings).length > 0) this.#waiting.push({ atS: clockS, readings });
      this.#lastS = clockS;
      // An hour without an answer: the oldest go.
      if (this.#waiting.length > 1000) this.#waiting.splice(0, this.#waiting.length - 1000);
    }
    const now = performance.now();
    if (this.#under || this.#waiting.length === 0 || now - this.#lastMs < BETWEEN_MS) return;
    this.#lastMs = now;
    this.#under = true;
    const sent = this.#waiting.slice(0, MOST_AT_ONCE);
    fetch(this.url, {
      method: "POST",
      headers: { "Content-Type": "application/json", Authorization: `Bearer ${this.token}` },
      body: JSON.stringify({ moments: sent }),
    })
      .then(async (r) => {
        const said = (await r.json()) as { sentence?: string };
        if (r.ok) {
          this.#waiting.splice(0, sent.length);
          this.stands = { sent: this.stands.sent + sent.length, sentence: "" };
        } else this.stands = { ...this.stands, sentence: said.sentence ?? `It was refused (${r.status}).` };
      })
      .catch(() => {
        this.stands = { ...this.stands, sentence: "The shop does not answer. What was read is kept and sent again." };
      })
      .finally(() => {
        this.#under = false;
      });
  }
}
