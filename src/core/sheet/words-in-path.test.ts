import { TOPOLOGIES } from '@/core/topologies';
import { partNames } from './path-circuit';
import type { Stage } from './schema';
import { drawnParts } from './stage';
import { texInPath, wordsInPath } from './words-in-path';

const names = new Map([
  ['R4', 'R6'],
  ['R6', 'R3'],
  ['C1', 'C1'],
  ['RF', 'R7'],
]);
const nameOf = (part: string) => names.get(part);

test('a sentence and a formula tell of parts by the names on the drawing', () => {
  expect(wordsInPath('R6 moves f0, R4 alone Q, RF the gain; 10 kΩ at R5.', nameOf)).toBe(
    'R3 moves f0, R6 alone Q, R7 the gain; 10 kΩ at R5.',
  );
  expect(texInPath('\\frac{1}{2\\pi R_6 C_{1}} + R_{4}', nameOf)).toBe(
    '\\frac{1}{2\\pi R_{3} C_{1}} + R_{6}',
  );
});

test('whatever a topology says of its parts, each is named as it stands on the drawing', () => {
  for (const topology of TOPOLOGIES) {
    const stage: Stage = {
      id: 's1',
      topology: topology.id,
      origin: 'hand',
      bypassed: false,
      parts: {},
    };
    const own = partNames([stage]).get('s1')!;
    const shown = new Set(own.values());
    const parts = new Set(drawnParts(stage).map((p) => p.id));
    for (const words of [topology.about, topology.tuning, topology.avoid, topology.sensitivity])
      for (const part of words.match(/\b[RCLG]\d+\b/g) ?? []) {
        // A name that is no part of it would be left as it is, and mean another one in the path.
        expect([topology.id, part, parts.has(part)]).toEqual([topology.id, part, true]);
        expect(shown.has(wordsInPath(part, (id) => own.get(id)))).toBe(true);
      }
  }
});
