import { ReedError } from '@/core/errors';
import { checkCouplings } from './couplings';
import { deviceOf } from './devices';
import type { Circuit } from './schema';

/** Disjoint sets of nets, joined part by part. */
class NetGroups {
  private readonly parent = new Map<string, string>();

  find(net: string): string {
    let root = net;
    while (this.parent.has(root)) root = this.parent.get(root)!;
    if (root !== net) this.parent.set(net, root);
    return root;
  }

  /** False when the two were in one group already. */
  join(a: string, b: string): boolean {
    const [ra, rb] = [this.find(a), this.find(b)];
    if (ra === rb) return false;
    this.parent.set(ra, rb);
    return true;
  }
}

/**
 * Find the wiring faults that leave a circuit's equations without a unique solution, before any
 * number is computed, so that the message can name parts and nets.
 *
 * @param at "ac" looks at frequencies above zero, where capacitors conduct; "dc" at rest
 * @throws ReedError `circuit` naming the net or part and the remedy
 */
export function checkWiring(circuit: Circuit, at: 'ac' | 'dc'): void {
  checkCouplings(circuit.parts);
  const ground = circuit.ground;
  const reached = new NetGroups();
  const fixed = new NetGroups();
  const touched = new Set<string>();
  const held = (net: string) => (net === '@ground' ? ground : net);

  for (const part of circuit.parts) {
    const device = deviceOf(part.kind);
    const nets = Object.values(device.terminals(part));
    nets.forEach((n) => touched.add(n));
    const groups = (at === 'ac' && device.conductsAbove?.(part)) || device.conducts(part);
    for (const group of groups) {
      const [first, ...rest] = group.map(held);
      for (const other of rest) reached.join(first, other);
      const rigid =
        device.fixesVoltage === 'always' ||
        (device.fixesVoltage === 'at-dc' && at === 'dc' && !hasResistance(part));
      if (rigid && first !== rest[0] && !fixed.join(first, rest[0]))
        throw voltageLoop(part.id, first, rest[0]);
      if (rigid && first === rest[0] && device.fixesVoltage === 'always')
        throw voltageLoop(part.id, first, first);
    }
  }
  if (!touched.has(ground)) {
    throw new ReedError(
      'circuit',
      `No part touches the ground net “${ground}”: join the circuit to it, or name another ground.`,
      { net: ground },
    );
  }
  for (const net of touched) {
    // Control inputs alone may hang on a net; they cannot set its voltage.
    if (reached.find(net) !== reached.find(ground)) {
      const through = at === 'dc' ? ' at d.c.' : '.';
      throw new ReedError(
        'circuit',
        `Net “${net}” floats: nothing conducts between it and ground${through} Add a resistor from it to ground, or check how it is wired.`,
        { net },
      );
    }
  }
}

function hasResistance(part: { kind: string; dcrOhms?: number }): boolean {
  return (part.dcrOhms ?? 0) > 0;
}

function voltageLoop(part: string, a: string, b: string): ReedError {
  return new ReedError(
    'circuit',
    `Part “${part}” closes a loop of parts that each fix a voltage (between nets “${a}” and “${b}”): its current has no definite value. Put a small resistance in the loop.`,
    { part, net: a },
  );
}
