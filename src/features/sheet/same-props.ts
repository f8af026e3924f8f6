/** Equal when every prop says the same; the engine's answers are fresh objects each time. */
export function sameProps<P extends object>(a: P, b: P): boolean {
  const keys = Object.keys(b) as (keyof P)[];
  return keys.every((k) => a[k] === b[k] || JSON.stringify(a[k]) === JSON.stringify(b[k]));
}
