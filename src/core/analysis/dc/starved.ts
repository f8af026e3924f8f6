import { deviceOf } from '@/core/circuit/devices';
import type { Circuit, Part } from '@/core/circuit/schema';
import { inWords } from '@/core/quantity/format';
import { quoted } from '@/core/text';

/** What a part takes from a net at d.c. whatever happens, and what it can give at most, amperes. */
interface Trade {
  takes: number;
  gives: number;
}

function tradeOf(part: Part, terminal: string): Trade {
  if (part.kind === 'capacitor') return { takes: 0, gives: 0 };
  if (part.kind === 'op-amp' && (terminal === 'inPlus' || terminal === 'inMinus'))
    return { takes: part.model === 'ideal' ? 0 : (part.model.biasAmps ?? 0), gives: 0 };
  if (part.kind === 'ota')
    return {
      takes: 0,
      gives: (terminal === 'out' ? part.biasAmps : (part.diodeAmps ?? 0)) ?? Infinity,
    };
  return { takes: 0, gives: Infinity };
}

/**
 * Why a circuit has no state of rest, where that is because an input takes more current than whatever
 * leads to its net can give, as a bipolar op-amp does after a transconductance amplifier with little current.
 */
export function starvedWords(circuit: Circuit): string | undefined {
  const nets = new Map<string, { takers: string[]; givers: string[]; left: number }>();
  for (const part of circuit.parts)
    for (const [terminal, net] of Object.entries(deviceOf(part.kind).terminals(part))) {
      if (net === circuit.ground) continue;
      let known = nets.get(net);
      if (!known) nets.set(net, (known = { takers: [], givers: [], left: 0 }));
      const { takes, gives } = tradeOf(part, terminal);
      if (takes > 0) known.takers.push(part.id);
      if (gives > 0) known.givers.push(part.id);
      known.left += gives - takes;
    }
  for (const [net, { takers, givers, left }] of nets) {
    if (left >= 0 || takers.length === 0) continue;
    const short = inWords(-left, 'amps', 2);
    const gives = givers.length > 0 ? `${givers.join(' and ')} can give` : 'anything there gives';
    return `${takers.join(' and ')} takes ${short} more at net ${quoted(net)} than ${gives}: choose an op-amp with less input current, or give more current.`;
  }
  return undefined;
}
