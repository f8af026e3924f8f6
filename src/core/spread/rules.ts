import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import type { Deviating, Shape } from './deviations';

/** How parts of a kind, or one part, deviate. */
export interface Rule {
  tolerance: number;
  shape?: Shape;
  reel?: string;
  perKelvin?: number;
}

/** Rules by the id of a part, or by kind; those of a part go first. */
export type Rules = Readonly<Record<string, Rule>>;

/** The number of each kind that its tolerance is about. */
const ABOUT: Readonly<Record<string, string>> = {
  resistor: 'ohms',
  capacitor: 'farads',
  inductor: 'henries',
  // Both halves of a track are of one piece: what is off is the whole.
  potentiometer: 'ohms',
  'op-amp': 'gainBandwidthHz',
  ota: 'biasAmps',
  transconductor: 'siemens',
  coupling: 'k',
  transistor: 'betaForward',
};

/** The kinds that a tolerance can be told for. */
export const DEVIATING_KINDS = Object.keys(ABOUT);

/**
 * The values of a circuit that deviate, by rules.
 *
 * @param fixed parts that are taken to be as they are
 * @throws ReedError `range` for a rule that is about nothing in the circuit
 */
export function deviatingBy(
  { system }: AcAnalysis,
  rules: Rules,
  fixed: ReadonlySet<string> = new Set(),
): Deviating[] {
  const kinds = new Map(system.circuit.parts.map((p) => [p.id, p.kind as string]));
  const found = [...kinds].flatMap(([id, kind]): Deviating[] => {
    const rule = (rules[id] ?? rules[kind]) as Rule | undefined;
    const parameter = system.places.get(id)?.get(ABOUT[kind] ?? '');
    if (!rule || parameter === undefined || fixed.has(id)) return [];
    const { tolerance, shape = { is: 'uniform' }, reel, perKelvin } = rule;
    return [
      {
        part: id,
        parameter,
        tolerance,
        shape,
        ...(reel === undefined ? {} : { reel }),
        ...(perKelvin === undefined ? {} : { perKelvin }),
      },
    ];
  });
  for (const name of Object.keys(rules))
    if (!DEVIATING_KINDS.includes(name) && !kinds.has(name))
      throw new ReedError(
        'range',
        `There is no part and no kind ${quoted(name)} that could be off; kinds are ${DEVIATING_KINDS.join(', ')}.`,
      );
  return found;
}
