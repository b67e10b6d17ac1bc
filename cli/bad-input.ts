/** What is said on standard error, one sentence a fault; exit 2. */
export class BadInput extends Error {
  constructor(readonly faults: string[]) {
    super(faults[0]);
  }
}
