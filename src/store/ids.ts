/** A short random id. Works on plain http too, where `crypto.randomUUID` does not exist. */
export function newId(prefix = ''): string {
  const bytes = crypto.getRandomValues(new Uint8Array(9));
  return prefix + Array.from(bytes, (b) => (b % 36).toString(36)).join('');
}

export function now(): string {
  return new Date().toISOString();
}
