import { inWords } from '@/core/quantity/format';
import { spaced } from '@/core/response/landmarks';
import { levelDb } from '@/core/response/response';
import { transferOf } from '@/core/topologies/topology';
import type { Stage } from './schema';
import { solvedAlone } from './stage-card';
import { designedAs, partsSinceDesign, valuesOf } from './stage';

/** What still holds of the formulas of a stage that was wired otherwise since. */
export interface FormulaTruth {
  /** Parts that the formulas speak of and the circuit no longer has; and those that came in. */
  gone: string[];
  added: string[];
  /** In a sentence, with the numbers of this circuit. */
  words: string;
  /** Where formulas and circuit agree to `AGREES_DB`, as far as was looked; none where they never do. */
  holds: { fromHz: number; toHz: number }[];
  worst: { hz: number; db: number } | null;
}

/** The formulas are called right while they are this close, dB. */
const AGREES_DB = 0.1;
const POINTS = 160;
const DECADES_EACH_WAY = 2;

/** Nothing for a stage that is wired as designed, or never was designed. */
export function formulaTruth(stage: Stage): FormulaTruth | undefined {
  const topology = designedAs(stage);
  if (!topology || !stage.drawing) return undefined;
  const { gone, added } = partsSinceDesign(stage);
  if (gone.length > 0)
    return {
      gone,
      added,
      holds: [],
      worst: null,
      words: `Its formulas speak of ${gone.join(', ')}, which the circuit no longer has: none of them holds.`,
    };
  const figures = topology.figures(valuesOf(stage));
  const away = 10 ** DECADES_EACH_WAY;
  const frequenciesHz = spaced(figures.f0Hz / away, figures.f0Hz * away, POINTS);
  const solved = solvedAlone(stage, frequenciesHz);
  const off = frequenciesHz.map((hz, k) => {
    const { re, im } = transferOf(topology, figures, hz);
    return solved[k] - levelDb(re, im);
  });
  const holds: FormulaTruth['holds'] = [];
  let worst = { hz: frequenciesHz[0], db: 0 };
  off.forEach((db, k) => {
    const hz = frequenciesHz[k];
    if (Math.abs(db) > Math.abs(worst.db)) worst = { hz, db };
    if (Math.abs(db) > AGREES_DB) return;
    const last = holds[holds.length - 1];
    if (last && k > 0 && last.toHz === frequenciesHz[k - 1]) last.toHz = hz;
    else holds.push({ fromHz: hz, toHz: hz });
  });
  return { gone, added, holds, worst, words: wordsOf(added, holds, worst, frequenciesHz) };
}

function wordsOf(
  added: readonly string[],
  holds: FormulaTruth['holds'],
  worst: { hz: number; db: number },
  frequenciesHz: Float64Array,
): string {
  const hz = (value: number) => inWords(value, 'hertz', 3);
  const with_ = added.length > 0 ? `With ${added.join(', ')} in the circuit` : 'As it is wired now';
  if (Math.abs(worst.db) <= AGREES_DB)
    return `${with_} every formula still holds, to ${AGREES_DB} dB from ${hz(frequenciesHz[0])} to ${hz(frequenciesHz[frequenciesHz.length - 1])}.`;
  const side = worst.db > 0 ? 'above' : 'below';
  const most = `at ${hz(worst.hz)} the circuit lies ${Math.abs(worst.db).toFixed(1)} dB ${side} them`;
  if (holds.length === 0) return `${with_} the formulas no longer hold: ${most}.`;
  const low = holds[0].fromHz === frequenciesHz[0] ? holds[0] : undefined;
  const last = holds[holds.length - 1];
  const high = last.toHz === frequenciesHz[frequenciesHz.length - 1] ? last : undefined;
  const where = [
    ...(low ? [`below ${hz(low.toHz)}`] : []),
    ...(high && high !== low ? [`above ${hz(high.fromHz)}`] : []),
  ];
  return where.length === 0
    ? `${with_} the formulas no longer hold: ${most}.`
    : `${with_} the formulas hold ${where.join(' and ')}; ${most}.`;
}
