// Who waits: clients by turns, each client's tasks in order.

interface Waiter {
  readonly client: string;
  /** Nobody waits for it. */
  readonly isOver: boolean;
}

export function makeTurns<T extends Waiter>() {
  const byClient = new Map<string, T[]>();
  const live = (tickets: readonly T[]) => tickets.filter(({ isOver }) => !isOver);
  return {
    add(ticket: T) {
      const { client } = ticket;
      byClient.set(client, [...live(byClient.get(client) ?? []), ticket]);
    },
    /** Before all others. */
    first(ticket: T) {
      const { client } = ticket;
      const others = [...byClient].filter(([name]) => name !== client);
      const own = [ticket, ...(byClient.get(client) ?? [])];
      byClient.clear();
      for (const [name, tickets] of [[client, own] as const, ...others]) byClient.set(name, tickets);
    },
    next(): T | null {
      for (const [client, tickets] of byClient) {
        const [ticket, ...others] = live(tickets);
        // Whose turn it was stands last now.
        byClient.delete(client);
        if (others.length > 0) byClient.set(client, others);
        if (ticket) return ticket;
      }
      return null;
    },
    size: () => [...byClient.values()].reduce((sum, tickets) => sum + live(tickets).length, 0),
  };
}
