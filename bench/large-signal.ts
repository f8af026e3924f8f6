import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { transient } from '@/core/analysis/transient/transient';
import { makeCircuit, readCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { cascade } from './circuits';
import { report, time } from './measure';

const AUDIO_RATE = 96_000;

/** Time-domain, operating-point and spread measurements. */
export function benchLargeSignal(): void {
  const chain = driven(cascade(10));
  const cycles = time(
    5,
    () =>
      void transient(chain, { untilSeconds: 0.1, stepSeconds: 1 / AUDIO_RATE, probes: ['out'] }),
  );
  report('Transient, linear 10-op-amp chain, 0.1 s at 96 kHz', cycles, 's');

  steps('four-pole OTA loop', 'transient-ota-loop', 2 * AUDIO_RATE);
  steps('transistor ladder with its bias', 'transient-transistor-ladder', AUDIO_RATE);
  steps('hard diode clipper', 'transient-diode-clipper', AUDIO_RATE);

  const amplifier = sixTransistors();
  const points = time(25, () => void operatingPoint(amplifier));
  report('Operating point of six transistors', points, 'ms', 1e3);
}

/** Given steps, as they come by default for so many, and by the plain stepper, in turns. */
function steps(what: string, file: string, rate: number): void {
  const path = join(import.meta.dirname, `../src/core/fixtures/${file}.json`);
  const { circuit: document, probe } = JSON.parse(readFileSync(path, 'utf8')) as {
    circuit: unknown;
    probe: string;
  };
  const circuit = readCircuit(document);
  const play = (untilSeconds: number, by?: 'plain') => {
    const from = performance.now();
    transient(circuit, { untilSeconds, stepSeconds: 1 / rate, probes: [probe], by });
    return (untilSeconds * 1000) / (performance.now() - from);
  };
  play(1);
  const turns = Array.from({ length: 7 }, () => ({ quick: play(5), plain: play(0.2, 'plain') }));
  const label = `Steps, ${what} at ${rate / 1000} kHz`;
  report(
    label,
    turns.map(({ quick }) => quick),
    'real time',
  );
  report(
    '  times the plain stepper, in turns',
    turns.map(({ quick, plain }) => quick / plain),
    'x',
  );
}

function driven(circuit: Circuit): Circuit {
  const parts = circuit.parts.map((p): Part =>
    p.kind === 'voltage-source'
      ? {
          ...p,
          waveform: {
            shape: 'sine',
            offsetVolts: 0,
            amplitudeVolts: 1,
            frequencyHz: 440,
            delaySeconds: 0,
            degrees: 0,
          },
        }
      : p,
  );
  return { ...circuit, parts };
}

/** A differential pair with its current source, a second stage, and a complementary output pair. */
function sixTransistors(): Circuit {
  const model = (polarity: 'npn' | 'pnp') => ({
    polarity,
    saturationAmps: 1e-14,
    betaForward: 150,
    betaReverse: 2,
    baseEmitterFarads: 0,
    baseCollectorFarads: 0,
    transitSeconds: 0,
  });
  const q = (
    id: string,
    polarity: 'npn' | 'pnp',
    collector: string,
    base: string,
    emitter: string,
  ): Part => ({ id, kind: 'transistor', collector, base, emitter, model: model(polarity) });
  const r = (id: string, a: string, b: string, ohms: number): Part => ({
    id,
    kind: 'resistor',
    a,
    b,
    ohms,
  });
  return makeCircuit([
    { id: 'VP', kind: 'voltage-source', plus: 'p', minus: '0', dcVolts: 15 },
    { id: 'VN', kind: 'voltage-source', plus: 'n', minus: '0', dcVolts: -15 },
    r('RI', 'in', '0', 47_000),
    q('Q1', 'npn', 'c1', 'in', 'e'),
    q('Q2', 'npn', 'p', 'fb', 'e'),
    q('Q3', 'npn', 'e', 'b3', 'e3'),
    r('RB1', '0', 'b3', 33_000),
    r('RB2', 'b3', 'n', 6_800),
    r('RE3', 'e3', 'n', 1_500),
    r('RC1', 'p', 'c1', 680),
    q('Q4', 'pnp', 'drive', 'c1', 'p'),
    r('RD', 'drive', 'n', 6_800),
    q('Q5', 'npn', 'p', 'drive', 'out'),
    q('Q6', 'pnp', 'n', 'drive', 'out'),
    r('RF1', 'out', 'fb', 10_000),
    r('RF2', 'fb', '0', 1_000),
    r('RL', 'out', '0', 600),
  ]);
}
