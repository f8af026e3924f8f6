import { seededRandom } from '@/core/random';
import { MISTAKES } from '@/core/mistakes';
import type { Rules } from '@/core/spread/rules';
import { measureBoard } from '@/core/rig/rig';
import { findSuspects } from '@/core/suspects/suspects';
import { CLOSE, EVERYDAY, faulty, levelsOnly } from '@/core/suspects/testing/board';
import { SUBJECTS, type Subject } from '@/core/suspects/testing/circuits';
import { line, report } from './measure';

const BOARDS = 25;
const MISTAKEN = 10;
/** A fault that moves the curve by less than this is seen by nobody. */
const SEEN_DB = 0.1;

/** Three hundred boards with one part off, parts close and everyday, and 120 that were got wrong. */
export function benchSuspects(): void {
  oneOff('others within 1 %, one part off by 10 to 50 %', CLOSE, 0.1, 0.5);
  oneOff('everyday parts, one part off by 20 to 50 %', EVERYDAY, 0.2, 0.5);
  mistakes();
}

function oneOff(title: string, rules: Rules, least: number, most: number): void {
  const random = seededRandom(14);
  let [boards, inFirst, single, alone, value, said] = [0, 0, 0, 0, 0, 0];
  const seconds: number[] = [];
  for (const subject of SUBJECTS)
    for (let seed = 1; seed <= BOARDS; seed++) {
      const { part, factor } = drawn(subject, random, least, most);
      const { take } = faulty(subject, `${part}=*${factor}`, seed, { rules });
      const from = performance.now();
      const { frequenciesHz, levelDb } = take;
      const { ranking, ordinary } = findSuspects({
        circuit: subject.circuit,
        probe: 'out',
        take: { frequenciesHz, levelDb },
        rules,
      });
      seconds.push((performance.now() - from) / 1000);
      boards++;
      const [first] = ranking;
      const named = [...first.parts, ...first.alikeParts.flat()];
      const found = named.find((p) => p.id === part);
      if (ordinary.enough) said++;
      if (first.alike.length === 0) single++;
      if (!found) continue;
      inFirst++;
      if (first.alike.length === 0) alone++;
      if (Math.abs(found.factor / factor - 1) <= 0.03) value++;
    }
  const percent = (n: number, of = boards) => (100 * n) / of;
  line(`${boards} boards, ${title}: true part first or alike to the first`, percent(inFirst), '%');
  line('  first alone, of those whose first stands alone', percent(alone, single), '%');
  line('  first alone, of all', percent(alone), '%');
  line('  its value within 3 %, of those found', percent(value, inFirst), '%');
  line('  said that tolerances explain it as well', percent(said), '%');
  report('  time of a board', seconds, 's');
}

/** A part and a factor that change the curve. */
function drawn({ circuit, hz }: Subject, random: () => number, least: number, most: number) {
  const parts = circuit.parts.filter((p) => /^[RCL]/.test(p.id));
  const curve = (fault?: string) =>
    faulty({ circuit, hz }, fault ?? '', 0, { rules: {}, noiseDb: 0 }).take.levelDb;
  const exact = curve();
  for (;;) {
    const part = parts[Math.floor(random() * parts.length)].id;
    const size = least + (most - least) * random();
    const factor = random() < 0.5 ? 1 + size : 1 - size;
    if (apart(exact, curve(`${part}=*${factor}`)) > SEEN_DB) return { part, factor };
  }
}

/** How far two curves are apart, dB, the level taken out. */
function apart(a: readonly number[], b: readonly number[]): number {
  const off = a.map((v, k) => v - b[k]);
  const mean = off.reduce((s, v) => s + v, 0) / off.length;
  return Math.sqrt(off.reduce((s, v) => s + (v - mean) ** 2, 0) / off.length);
}

/** A mistake is seen where it moves the curve by more than this. */
const MISTAKE_DB = 0.5;

function mistakes(): void {
  const random = seededRandom(41);
  let [boards, first] = [0, 0];
  const seconds: number[] = [];
  for (const { circuit, hz } of SUBJECTS) {
    const sound = faulty({ circuit, hz }, '', 0, { rules: {}, noiseDb: 0 }).take;
    const all = MISTAKES.filter((m) => m.kind !== 'probe-loading').map((kind) => ({
      kind: kind.kind,
      list: [...kind.in(circuit, 'out', Math.max(...sound.frequenciesHz))],
    }));
    const kinds = all.filter(({ list }) => list.length > 0);
    for (let n = 0, tries = 0; n < MISTAKEN && tries < 10 * MISTAKEN; tries++) {
      const { kind, list } = kinds[Math.floor(random() * kinds.length)];
      const mistaken = list[Math.floor(random() * list.length)];
      const measured = (rules: Rules, noiseDb: number, seed: number) => {
        try {
          const { frequenciesHz } = sound;
          return measureBoard({
            circuit: mistaken.circuit,
            probe: 'out',
            frequenciesHz,
            seed,
            rules,
            faults: [],
            noiseDb,
          });
        } catch {
          return undefined;
        }
      };
      const exact = measured({}, 0, 0);
      if (!exact || !(apart(exact.take.levelDb, sound.levelDb) > MISTAKE_DB)) continue;
      const board = measured(EVERYDAY, 0.1, n + 1);
      if (!board) continue;
      n++;
      boards++;
      const from = performance.now();
      const found = findSuspects({
        circuit,
        probe: 'out',
        take: levelsOnly(board),
        rules: EVERYDAY,
      }).mistakes;
      seconds.push((performance.now() - from) / 1000);
      const names = found.slice(0, 1).flatMap((m) => [m, ...m.alike]);
      const parts = [...mistaken.parts].sort().join();
      if (names.some((m) => m.kind === kind && [...m.parts].sort().join() === parts)) first++;
    }
  }
  line(`${boards} boards that were got wrong: named first`, (100 * first) / boards, '%');
  report('  time of a board', seconds, 's');
}
