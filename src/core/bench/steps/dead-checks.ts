import { netsOf, type Circuit } from '@/core/circuit/schema';
import type { Rules } from '@/core/spread/rules';
import { deadOhms } from '@/core/suspects/dead-resistance';
import type { BenchStep, Expected } from './step';

/** A meter reads no more than this, and calls it open. */
const OPEN_OHMS = 20e6;
/** What a meter and its leads may be off by. */
const METER = 0.01;
/** What leads and the winding of a coil come to, where no more is known than that it joins. */
const JOINED_OHMS = 5;

/** What an ohmmeter should find at both ends of the board before it has power. */
export function deadChecks(circuit: Circuit, probe: string, rules: Rules): BenchStep[] {
  const { ground } = circuit;
  const nets = netsOf(circuit);
  const first = nets.includes('in') ? 'in' : nets[0];
  const points = [...new Set([first, probe])].filter((net) => net !== ground);
  return points.map((net) => {
    const expects = deadResistance(circuit, net, ground, rules);
    return {
      id: `dead-${net}`,
      title: `No power: ${net === first ? 'input' : net === probe ? 'output' : net} to common`,
      detail: `Source and load taken off. ${whatToSee(expects)}`,
      expects,
    };
  });
}

function whatToSee({ least, most }: Expected): string {
  if (most === Infinity)
    return 'It should be open; a reading that climbs is a capacitor that charges.';
  if (least === 0) return 'Joined by a coil or a wire: next to nothing, but for its winding.';
  return 'A reading that climbs first is a capacitor that charges: wait until it stands.';
}

/** A resistance between two nets without power, and what tolerances may make of it. */
export function deadResistance(circuit: Circuit, a: string, b: string, rules: Rules): Expected {
  const between = (off?: ReadonlyMap<string, number>) => deadOhms(circuit, a, b, off);
  const ohms = between();
  if (ohms === Infinity) return { quantity: 'ohms', least: OPEN_OHMS, most: Infinity };
  if (ohms === 0) return { quantity: 'ohms', least: 0, most: JOINED_OHMS };
  let reach = METER;
  for (const { id, kind } of circuit.parts) {
    const tolerance = (rules[id] ?? rules[kind])?.tolerance;
    if (tolerance === undefined) continue;
    const moved = between(new Map([[id, Math.log1p(tolerance)]]));
    if (moved > 0 && moved < Infinity) reach += Math.abs(Math.log(moved / ohms));
  }
  return { quantity: 'ohms', least: ohms * Math.exp(-reach), most: ohms * Math.exp(reach) };
}
