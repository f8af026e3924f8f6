import { deviceOf } from '@/core/circuit/devices';
import { netsOf, type Circuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { ReedError } from '@/core/errors';
import { CYCLE, SteadyRun, type SteadyWave } from '@/core/synth/steady';
import type { Sheet } from '@/core/sheet/schema';
import { overLayers, withoutPause, type OverLayers, type Pause } from './layers';

export interface ScopeRequest {
  wave: SteadyWave;
  hz: number;
  /** Peak volts of the source. */
  volts: number;
  /** Nets that are looked at, besides input and output. */
  nets: readonly string[];
}

export interface ScopePicture {
  /** Of one cycle. */
  seconds: Float64Array;
  /** Every net of the built path, and what it is called after. */
  nets: { net: string; name: string }[];
  /** False where a circuit does not follow its source: what is shown is the last of many cycles. */
  repeats: boolean;
  /** Volts against ground, by net; of one of which nothing is there nothing. */
  layers: OverLayers<Record<string, Float64Array>>;
}

/**
 * Any nets over one cycle, against the same ground and on the same scale, while a wave goes through the
 * bent circuit; the same for every keep, so that an edit shows before and after.
 */
export async function scopeLens(
  sheet: Sheet,
  { wave, hz, volts, nets: asked }: ScopeRequest,
  pause: Pause = withoutPause,
): Promise<ScopePicture> {
  if (!(hz > 0)) throw new ReedError('range', 'A wave needs a frequency above 0 Hz.');
  let nets: ScopePicture['nets'] = [];
  let repeats = true;
  const layers = await overLayers(sheet, pause, (circuit, { id }) => {
    // What a perfect part does at a level is what it does at any.
    if (id === 'ideal') return {};
    if (id === 'built') nets = namedNets(circuit);
    const there = new Set(netsOf(circuit));
    const [probe, ...also] = [...new Set(['in', 'out', ...asked])].filter((net) => there.has(net));
    // One run of all: where it sings by itself, they must be of the same cycle.
    const run = new SteadyRun(circuit, UNIT_SOURCE.id, probe, hz, also);
    const cycle = run.cycle({ wave, volts });
    repeats &&= cycle.repeats;
    return Object.fromEntries([
      [probe, cycle.volts],
      ...also.map((net, i): [string, Float64Array] => [net, cycle.also[i]]),
    ]);
  });
  const seconds = Float64Array.from({ length: CYCLE + 1 }, (_, k) => k / CYCLE / hz);
  return { seconds, nets, layers, repeats };
}

/** Pins after which a net is best called, by kind. */
const TELLING: Readonly<Record<string, readonly string[]>> = {
  'op-amp': ['out'],
  ota: ['out', 'inPlus'],
  transistor: ['collector', 'base', 'emitter'],
  jfet: ['drain', 'gate', 'source'],
};
const PINS: Readonly<Record<string, string>> = { inPlus: '+' };

/** Every net with a name: that of an active part’s pin where there is one, or of the parts it joins. */
export function namedNets(circuit: Circuit): { net: string; name: string }[] {
  const pins = circuit.parts.flatMap((part) =>
    Object.entries(deviceOf(part.kind).terminals(part)).map(([pin, net]) => ({ part, pin, net })),
  );
  return netsOf(circuit)
    .filter((net) => net !== circuit.ground)
    .map((net) => {
      if (net === 'in') return { net, name: 'input' };
      if (net === 'out') return { net, name: 'output' };
      const here = pins.filter((p) => p.net === net);
      const telling = here.find((p) => TELLING[p.part.kind]?.includes(p.pin));
      const name = telling
        ? `${telling.part.id} ${PINS[telling.pin] ?? telling.pin}`
        : here
            .slice(0, 2)
            .map((p) => p.part.id)
            .join(' and ');
      return { net, name };
    });
}
