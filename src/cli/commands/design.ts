import { designAsk } from '@/core/design/design';
import { designCircuit } from '@/core/design/circuit';
import { readAsk } from '@/core/design/read';
import { readArgs, readJson, writeOut, type Command } from '../command';

export const design: Command = {
  name: 'design',
  usage: 'ASK.json [--out CIRCUIT.json]',
  summary: 'a complete circuit with exact values for an ask',
  run(args) {
    const { positionals, values: options } = readArgs(args, { out: { type: 'string' } }, 1);
    const ask = readAsk(readJson(positionals[0]));
    const found = designAsk(ask);
    const { circuit, values } = designCircuit(found, ask.opAmp, `${ask.kind} by ask`);
    if (options.out !== undefined) writeOut(options.out, `${JSON.stringify(circuit, null, 2)}\n`);
    return {
      order: found.order,
      values,
      stages: found.stages.map(({ topology, values: own }) => {
        const { f0Hz, q, gain, zeroHz, boost, poles } = topology.figures(own);
        return { topology: topology.id, f0Hz, q: q ?? null, gain, zeroHz, boost, poles };
      }),
      notes: found.notes,
      ...(options.out === undefined ? { circuit } : {}),
    };
  },
};
