interface Kept {
  on: readonly unknown[];
  outcome: { value: unknown } | { error: unknown };
}

/**
 * Named results, each computed when it is asked for, and again only when something it stands on has
 * changed. What is asked for may ask for others in turn: together they are a small graph.
 */
export class Results {
  private readonly kept = new Map<string, Kept>();
  private asked = new Set<string>();

  /**
   * @param on what the result stands on, compared one by one as `===` does
   * @param compute its failure is kept like a result, and thrown to everyone who asks
   */
  get<T>(name: string, on: readonly unknown[], compute: () => T): T {
    this.asked.add(name);
    let found = this.kept.get(name);
    if (!found || !alike(found.on, on)) {
      found = { on, outcome: outcomeOf(compute) };
      this.kept.set(name, found);
    }
    if ('error' in found.outcome) throw found.outcome.error;
    return found.outcome.value as T;
  }

  /** Forget what was not asked for since the last time. */
  sweep(): void {
    for (const name of this.kept.keys()) if (!this.asked.has(name)) this.kept.delete(name);
    this.asked = new Set();
  }
}

const alike = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((x, i) => x === b[i]);

function outcomeOf(compute: () => unknown): Kept['outcome'] {
  try {
    return { value: compute() };
  } catch (error) {
    return { error };
  }
}
