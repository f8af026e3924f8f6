/** Run a search that stops on its way to its end. */
export function toItsEnd<T>(search: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
  }
}
