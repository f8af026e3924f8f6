import { readFault } from '@/core/rig/fault';
import { measureBoard } from '@/core/rig/rig';
import { takeTable } from '@/core/library/take-table';
import { spaced } from '@/core/response/landmarks';
import { ENDS, SOURCE_OHMS } from '@/core/sheet/path-circuit';
import { drivenByCurrent } from '@/core/suspects/impedance';
import { surroundings } from '@/core/solve/span-of';
import {
  quantityOption,
  readArgs,
  required,
  UsageError,
  wholeNumber,
  writeOut,
  type Command,
} from '../command';
import { readSubject } from '../subject';
import { rulesOf } from '../tolerances';

const text = { type: 'string' } as const;
const POINTS = '61';
/** Beyond what bends the curve, where nothing is said. */
const BEYOND = 10;
const AUDIBLE = { fromHz: 20, toHz: 20_000 };
const USUAL = 'resistor=1%,capacitor=5%,inductor=5%';

/** A simulated board on a simulated bench. */
export const rig: Command = {
  name: 'rig',
  usage:
    'CIRCUIT|ASK|SHEET --probe out --seed 3 [--fault C2=*1.3]… [--noise-db 0.1] [--tolerance resistor=1%,capacitor=5%] [--gain-db 0] [--from F --to F --points 61] [--impedance] --out TAKE.csv; --impedance measures the ohms that the source sees; a fault is also C2=47n, C2=missing, C2=shorted, D1=reversed, R1=R2 (swapped)',
  summary:
    'a take of a simulated board: values drawn from tolerances, faults, noise, an unknown level',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      {
        probe: text,
        seed: text,
        fault: { type: 'string', multiple: true },
        'noise-db': text,
        tolerance: text,
        'gain-db': text,
        from: text,
        to: text,
        points: text,
        impedance: { type: 'boolean' },
        out: text,
      },
      1,
    );
    const out = required('out', values.out);
    const seed = wholeNumber('seed', values.seed ?? '1', 0, 2 ** 32 - 1);
    const points = wholeNumber('points', values.points ?? POINTS, 5, 5000);
    const noiseDb = numberOf('noise-db', values['noise-db'] ?? '0.1', 0, 20);
    const gain = values['gain-db'];
    const subject = readSubject(positionals[0]);
    const whole = { circuit: subject.circuit, probe: values.probe ?? subject.probe };
    const { fromHz, toHz } = spanOf(whole.circuit, whole.probe);
    const { circuit, probe } = values.impedance
      ? drivenByCurrent(whole.circuit, SOURCE_OHMS)
      : whole;
    const from = quantityOption('from', values.from, 'hertz') ?? fromHz;
    const to = quantityOption('to', values.to, 'hertz') ?? toHz;
    if (!(from > 0 && to > from)) throw new UsageError('--from must be above zero and below --to');
    const measured = measureBoard({
      circuit,
      probe,
      frequenciesHz: Array.from(spaced(from, to, points)),
      seed,
      rules: rulesOf(values.tolerance ?? USUAL, { is: 'uniform' }),
      faults: (values.fault ?? []).map((f) => readFault(f, circuit)),
      noiseDb,
      // A bridge knows its ohms.
      ...(values.impedance ? { gainDb: 0 } : {}),
      ...(gain === undefined ? {} : { gainDb: numberOf('gain-db', gain, -200, 200) }),
      fixed: ENDS,
    });
    writeOut(out, takeTable(measured.take, values.impedance ? 'impedance' : 'level'));
    const { gainDb, factors } = measured;
    return { out, points, seed, gainDb, factors, faults: values.fault ?? [] };
  },
};

function numberOf(name: string, text: string, least: number, most: number): number {
  const number = Number(text);
  if (text.trim() === '' || !(number >= least && number <= most))
    throw new UsageError(`--${name} must be a number from ${least} to ${most}`);
  return number;
}

/** Where the curve bends and a decade about it; where nothing bends, what is heard. */
function spanOf(circuit: Parameters<typeof surroundings>[0], probe: string) {
  const hz = surroundings(circuit, probe).landmarks.map((l) => l.hz);
  const within = hz.filter((f) => f > 1 && f < 200_000);
  if (within.length === 0) return AUDIBLE;
  return { fromHz: Math.min(...within) / BEYOND, toHz: Math.max(...within) * BEYOND };
}
