/** What parts are called where that is not their name in the circuit. */
export type Names = Readonly<Record<string, string>>;

export const nameIn = (names: Names, id: string): string => (id in names ? names[id] : id);

const joined = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

export const listed = (parts: readonly string[], names: Names = {}): string =>
  joined(parts.map((id) => nameIn(names, id)));

/** By net, the parts that meet there. */
export type Meeting = Readonly<Record<string, readonly string[]>>;

/** Nets that people know by name. */
const KNOWN: Readonly<Record<string, string>> = {
  in: 'the input',
  out: 'the output',
  '0': 'common',
};

/** “the output”, or “where R1, R2 and C1 meet”. */
export const placeWords = (net: string, meeting: Meeting, names: Names = {}): string =>
  KNOWN[net] ?? (net in meeting ? `where ${listed(meeting[net], names)} meet` : net);
