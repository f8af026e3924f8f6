import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { drawn } from '@/core/drawing/grow/layout';
import { randomCircuit } from '@/core/drawing/testing/random-circuit';
import { DRIVER } from '@/core/library/testing';
import { partKindOf } from '@/core/parts';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import { seededRandom } from '@/core/random';
import { TOPOLOGIES } from '@/core/topologies';
import { designOf } from '../design-of';
import { makeSheet, makeStage } from '../make';
import type { Control, Sheet, Stage, StagePart, Way } from '../schema';
import { drawnParts, outputsOf } from '../stage';

const AT = '2026-11-23T08:00:00.000Z';

/**
 * A document as people leave them: designed stages and own ones of any parts, ways that leave
 * outputs, controls that move parts, readings at outputs, keeps. The same for the same seed.
 */
export function randomSheet(seed: number): Sheet {
  const random = seededRandom(seed);
  const below = (n: number) => Math.floor(random() * n);
  const one = <T>(list: readonly T[]): T => list[below(list.length)];
  const maybe = (part: number) => random() < part;
  const base = makeSheet({
    id: `random-${seed}`,
    title: `Random ${seed}`,
    at: AT,
    ask: { kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 10 ** (1 + 3 * random()) },
  });
  const parts = { ...base.parts, opAmp: one(OP_AMPS) };

  const designed = (id: string): Stage | undefined => {
    const topology = one(TOPOLOGIES.filter((t) => !t.limits.poles));
    const { q, boost, depth, own = {} } = topology.limits;
    const inside = (range?: readonly [number, number]) =>
      range && range[0] + (range[1] - range[0]) * random() ** 3;
    const target = {
      f0Hz: 10 ** (1 + 3 * random()),
      ...(q ? { q: inside(q) } : {}),
      ...(boost ? { boost: inside(boost) } : {}),
      ...(depth ? { depth: inside(depth) } : {}),
      own: Object.fromEntries(Object.entries(own).map(([name, range]) => [name, inside(range)!])),
    };
    try {
      const stage = makeStage(id, topology, target, parts, 'hand');
      const outputs = outputsOf(stage);
      return maybe(0.3) && outputs.length > 1 ? { ...stage, heard: one(outputs).name } : stage;
    } catch {
      // Figures that exclude each other.
      return undefined;
    }
  };
  const own = (id: string): Stage => {
    const drawing = drawn(randomCircuit(below(1e6), 7));
    const stage: Stage = { id, drawing, origin: 'hand', bypassed: false, parts: {} };
    const partOf = (kind: string): StagePart => {
      const main = mainQuantity(partKindOf(kind));
      const value = main && main.usual * 10 ** (2 * random() - 1);
      const fits = main && value !== undefined && !quantityProblem(main, value);
      return {
        ...(main ? { value: fits ? value : main.usual } : {}),
        chosen: 'hand',
      };
    };
    return {
      ...stage,
      parts: Object.fromEntries(
        drawnParts(stage).map(({ id: part, kind }) => [part, partOf(kind)]),
      ),
    };
  };
  const chain = (name: string, most: number): Stage[] =>
    Array.from({ length: below(most + 1) }, (_, i) => {
      const id = `${name}${i + 1}`;
      const stage = maybe(0.3) ? own(id) : (designed(id) ?? own(id));
      return maybe(0.1) ? { ...stage, bypassed: true } : stage;
    });

  const first: Way = { ...base.ways[0], stages: chain('s', 3) };
  const ways = [first];
  const heard = first.stages.filter((s) => !s.bypassed);
  if (maybe(0.4))
    ways.push({
      id: 'w2',
      name: 'Second',
      from:
        heard.length > 0 && maybe(0.7)
          ? { is: 'output', of: { way: first.id, stage: one(heard).id } }
          : { is: 'source' },
      stages: chain('t', 2),
      to: maybe(0.3)
        ? { is: 'driver', name: 'Speaker', driver: DRIVER.id, inverted: maybe(0.5) }
        : { is: 'load', name: 'Load', ohms: maybe(0.5) ? 1e4 : null, farads: null },
    });
  const movable = first.stages.flatMap((stage) =>
    Object.entries(stage.parts).flatMap(([part, { value }]) => {
      const kind = drawnParts(stage).find((p) => p.id === part)?.kind;
      const main = kind && mainQuantity(partKindOf(kind));
      return main && value ? [{ stage: stage.id, part, quantity: main.name, value }] : [];
    }),
  );
  const controls: Control[] =
    movable.length > 0 && maybe(0.4)
      ? [one(movable)].map(({ value, ...move }) => ({
          id: 'c1',
          name: 'Knob',
          is: 'turn',
          at: random(),
          moves: [{ ...move, from: value / 2, to: value * 2, law: 'by ratio' }],
        }))
      : [];
  const source = { ...base.source, ohms: maybe(0.5) ? 600 : 0 };
  const sheet: Sheet = { ...base, parts, source, ways, controls };
  const at = heard.length > 0 && maybe(0.3) ? { stage: one(heard).id } : undefined;
  return {
    ...sheet,
    readings: [...sheet.readings, { id: 'extra', measure: { measure: 'plateau' }, at }],
    keeps: maybe(0.3)
      ? [{ id: 'k1', name: 'Kept', at: AT, shown: true, design: designOf(sheet) }]
      : [],
  };
}
