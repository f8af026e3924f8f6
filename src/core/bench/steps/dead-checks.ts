import { netsOf, type Circuit } from '@/core/circuit/schema';
import type { Rules } from '@/core/spread/rules';
import { deadResistances } from '@/core/suspects/dead-resistance';
import type { BenchStep, Expected } from './step';

/** A meter reads no more than this, and calls it open. */
const OPEN_OHMS = 20e6;
/** What a meter and its leads may be off by. */
const METER = 0.01;

/** What an ohmmeter should find at both ends of the board before it has power. */
export function deadChecks(circuit: Circuit, probe: string, rules: Rules): BenchStep[] {
  const { ground } = circuit;
  const nets = netsOf(circuit);
  const first = nets.includes('in') ? 'in' : nets[0];
  const points = [...new Set([first, probe])].filter((net) => net !== ground);
  return points.map((net) => {
    const expects = deadResistance(circuit, net, ground, rules);
    const open = expects.most === Infinity;
    return {
      id: `dead-${net}`,
      title: `No power: ${net === first ? 'input' : net === probe ? 'output' : net} to common`,
      detail: open
        ? 'Source and load taken off. It should be open; a reading that climbs is a capacitor that charges.'
        : 'Source and load taken off. A reading that climbs first is a capacitor that charges: wait until it stands.',
      expects,
    };
  });
}

/** A resistance between two nets without power, and what tolerances may make of it. */
export function deadResistance(circuit: Circuit, a: string, b: string, rules: Rules): Expected {
  const between = (off: ReadonlyMap<string, number>) =>
    [...deadResistances(circuit, off).values()].find(
      ({ between: [x, y] }) => (x === a && y === b) || (x === b && y === a),
    )?.ohms;
  const ohms = between(new Map());
  if (ohms === undefined) return { quantity: 'ohms', least: OPEN_OHMS, most: Infinity };
  let reach = METER;
  for (const { id, kind } of circuit.parts) {
    const tolerance = (rules[id] ?? rules[kind])?.tolerance;
    if (tolerance === undefined) continue;
    const moved = between(new Map([[id, Math.log1p(tolerance)]]));
    if (moved !== undefined) reach += Math.abs(Math.log(moved / ohms));
  }
  return { quantity: 'ohms', least: ohms * Math.exp(-reach), most: ohms * Math.exp(reach) };
}
