import { noise } from '@/core/analysis/noise/noise';
import { ReedError } from '@/core/errors';
import { headroomLens } from '@/core/lenses/headroom';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { spaced } from '@/core/response/landmarks';
import type { Pause } from '@/core/lenses/layers';
import type { Sheet } from '@/core/sheet/schema';
import type { BoardCircuit } from '../board-circuit';
import { whatMetersDo } from '../meters';
import type { BenchStep } from './step';

/** A source stays so far below what clips. */
const BELOW_CLIPPING = 3;
/** Where nothing clips, and where nothing can be told. */
const USUAL_VOLTS = 1;
const MOST_VOLTS = 1;
const HEARD = { fromHz: 20, toHz: 20_000 };
/** What connecting a meter changes by less than this is nothing. */
const TOLD_DB = 0.01;

/** At which level to sweep, what to connect where, and what the meter does to it. */
export async function sweepStep(
  sheet: Sheet,
  { circuit, probe }: BoardCircuit,
  mark: DecimalMark,
  pause: Pause,
): Promise<BenchStep> {
  const { opAmps } = await headroomLens(sheet, pause);
  const [first] = opAmps as readonly ((typeof opAmps)[number] | undefined)[];
  const clips = first?.first.volts;
  const volts = Math.min(
    MOST_VOLTS,
    clips === undefined ? USUAL_VOLTS : roundDown(clips / BELOW_CLIPPING),
  );
  const print = (v: number) => formatQuantity(v, 'volts', { digits: 2, unit: true, mark });
  const above =
    clips === undefined || !first ? '' : ` ${first.part} clips first, at ${print(clips)} in.`;
  // Of what drives a loudspeaker nobody hears the network’s noise.
  const noiseVolts = sheet.ways[0].to.is === 'driver' ? undefined : noiseAt(circuit, probe);
  const under =
    noiseVolts === undefined
      ? ''
      : ` Noise at the output lies about ${formatFixed(20 * Math.log10(volts / noiseVolts), 0, mark)} dB under that.`;
  const { fromHz, toHz } = sheet.view;
  const meters = whatMetersDo(circuit, probe, spaced(fromHz, toHz, 60))
    .filter(({ db }) => Math.abs(db) >= TOLD_DB)
    .map(
      ({ meter, db, atHz }) =>
        `a ${meter.name} changes the level by ${formatFixed(db, 2, mark)} dB at ${formatQuantity(atHz, 'hertz', { digits: 2, unit: true, mark })}`,
    );
  const loading =
    meters.length === 0
      ? ' The usual meters change nothing.'
      : ` At the output, ${meters.join('; ')}.`;
  return {
    id: 'sweep',
    title: `Sweep, ${print(volts)} r.m.s. at the input`,
    detail: `${connected(sheet)}${above}${under}${loading}`,
    caution: sheet.ways[0].to.is === 'driver' ? WITH_DRIVER : WITHOUT_SOUND,
  };
}

const WITHOUT_SOUND =
  'Begin with everything turned down and nothing that makes sound connected: sweeps are loud, and hurt ears and tweeters.';
const WITH_DRIVER =
  'It sounds, and loudly: begin turned right down, keep your distance, never sweep a tweeter without its network. Measure the ohms first: an amplifier that is driven into too low a load is destroyed. Behind an amplifier a sound card wants a divider, and one common for all; an amplifier whose outputs are both live has none, and is not measured this way.';

/** What to connect where. */
const connected = ({ ways: [{ to }] }: Sheet): string =>
  to.is === 'driver'
    ? `Source through an amplifier to the input, ${to.name} in its place: its impedance is in the prediction. Meter across its terminals.`
    : 'Source from input to common, meter from output to common, one common for both.';

/** To the next below of 1, 2 and 5 in its decade. */
function roundDown(volts: number): number {
  const decade = 10 ** Math.floor(Math.log10(volts));
  return [5, 2, 1].map((n) => n * decade).find((v) => v <= volts * 1.0001) ?? decade;
}

function noiseAt(circuit: BoardCircuit['circuit'], probe: string): number | undefined {
  try {
    const { rmsVolts } = noise(circuit, { probe, ...HEARD, frequenciesHz: [] });
    return rmsVolts > 0 ? rmsVolts : undefined;
  } catch (error) {
    if (error instanceof ReedError) return undefined;
    throw error;
  }
}
