import { ReedError } from '@/core/errors';
import { checkAsk, type StageAsk, type StageChoice, type Topology } from './topology';

/** Frequency printed with a stage that does the same at all of them. */
export const FLAT_HZ = 1000;

/** What a pad is designed from: the level it leaves (0 to 1) and its impedance, ohms. */
export function padAsk(
  topology: Pick<Topology, 'name' | 'limits' | 'gain' | 'order' | 'kind'>,
  ask: StageAsk,
  choice: StageChoice | undefined,
  usualOhms: number,
): { k: number; Z: number } {
  checkAsk(topology, ask);
  const Z = choice?.ohms ?? usualOhms;
  if (!(Z > 0))
    throw new ReedError(
      'design',
      `${topology.name}: an impedance of ${Z} Ω cannot be matched; give one above zero.`,
    );
  return { k: ask.gain ?? 0.5, Z };
}

export const PAD_LIMITS = { gain: [0.001, 0.98] } as const;

/** The divider's ratio of a series and a shunt resistance. */
export const divide = (series: number, shunt: number): number => shunt / (series + shunt);
export const parallel = (a: number, b: number): number => (a * b) / (a + b);
