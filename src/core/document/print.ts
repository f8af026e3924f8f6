/** FNV-1a, 32 bits, from some beginning: enough to notice a change, not meant against forgery. */
export function fnv1a(text: string, hash = 0x811c9dc5): number {
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** JSON with the fields of every object in the order of their names: the same text for the same content. */
export function canonicalText(document: unknown): string {
  return (
    JSON.stringify(document, (_, value: unknown) => {
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
      const fields = value as Record<string, unknown>;
      return Object.fromEntries(
        Object.keys(fields)
          .sort()
          .map((name) => [name, fields[name]]),
      );
    }) ?? ''
  );
}

/**
 * A fingerprint of a text: 64 bits and its length. Tells states apart; not meant against forgery.
 *
 * Fowler, Noll, Vo: FNV-1a, taken twice from different beginnings.
 */
export const fingerprintOf = (text: string): string =>
  [text.length, fnv1a(text), fnv1a(text, 0x2f0b4a17)].map((n) => n.toString(36)).join('.');
