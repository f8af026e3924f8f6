import { makeCircuit, type Circuit, type Part } from '@/core/circuit/schema';

const realOpAmp = { gainBandwidthHz: 3.2e6, dcGainDb: 104 };

/** `stages` second-order low-pass stages with one-pole op-amps in a row: four unknowns each, two for the source. */
export function cascade(stages: number): Circuit {
  const parts: Part[] = [{ id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 }];
  let from = 'in';
  for (let i = 1; i <= stages; i++) {
    const out = i === stages ? 'out' : `o${i}`;
    parts.push(
      { id: `R${i}1`, kind: 'resistor', a: from, b: `a${i}`, ohms: 9100 },
      { id: `R${i}2`, kind: 'resistor', a: `a${i}`, b: `p${i}`, ohms: 15_000 },
      { id: `C${i}1`, kind: 'capacitor', a: `a${i}`, b: out, farads: 22e-9 },
      { id: `C${i}2`, kind: 'capacitor', a: `p${i}`, b: '0', farads: 6.8e-9 },
      { id: `A${i}`, kind: 'op-amp', inPlus: `p${i}`, inMinus: out, out, model: realOpAmp },
    );
    from = out;
  }
  return makeCircuit(parts, `${stages} second-order stages`);
}

/** `count` frequencies spaced evenly on a log axis. */
export function logSpaced(fromHz: number, toHz: number, count: number): Float64Array {
  return Float64Array.from(
    { length: count },
    (_, k) => fromHz * (toHz / fromHz) ** (k / (count - 1)),
  );
}
