import type { EventSubscriber, TransactionEventArgs } from "@mikro-orm/core";

/** What is to be done once a transaction is stored, by its context. */
const waiting = new WeakMap<object, (() => void)[]>();

/** Does `work` once the transaction of `tx` is stored, and never where it is taken back; at once outside of any. */
export function afterCommit(tx: { getTransactionContext: () => unknown }, work: () => void): void {
  const context = tx.getTransactionContext() as object | undefined;
  if (context) waiting.set(context, [...(waiting.get(context) ?? []), work]);
  else work();
}

/** The ORM tells when a transaction is stored. */
export class AfterCommit implements EventSubscriber {
  afterTransactionCommit({ transaction }: TransactionEventArgs): void {
    const works = transaction ? waiting.get(transaction) : undefined;
    if (!transaction || !works) return;
    waiting.delete(transaction);
    for (const work of works) work();
  }
}
