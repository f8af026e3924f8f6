import { makeCircuit, readCircuit, type Circuit } from '@/core/circuit/schema';
import { seededRandom } from '@/core/random';

/** Seeded random circuits with every kind of part, values over many decades. */
export class RandomCircuits {
  private readonly random: () => number;

  constructor(seed: number) {
    this.random = seededRandom(seed);
  }

  /** A number spread evenly on a log axis. */
  between(least: number, most: number): number {
    return least * (most / least) ** this.random();
  }

  whole(below: number): number {
    return Math.floor(this.random() * below);
  }

  one<T>(list: readonly T[]): T {
    return list[this.whole(list.length)];
  }

  chance(part: number): boolean {
    return this.random() < part;
  }

  /** Linear parts: a tree of resistors, capacitors and coils, cross links, amplifiers of all kinds. */
  linear(): Circuit {
    const nets = 3 + this.whole(8);
    const net = (k: number) => (k === 0 ? '0' : `n${k}`);
    const any = () => net(this.whole(nets + 1));
    const parts: object[] = [
      { id: 'V', kind: 'voltage-source', plus: 'n1', minus: '0', acVolts: 1 },
    ];
    const passive = (a: string, b: string): void => {
      if (a === b) return;
      const id = `P${parts.length}`;
      const kind = this.random();
      if (kind < 0.45) parts.push({ id, kind: 'resistor', a, b, ohms: this.between(0.01, 1e8) });
      else if (kind < 0.8)
        parts.push({
          id,
          kind: 'capacitor',
          a,
          b,
          farads: this.between(1e-14, 1e-3),
          ...(this.chance(0.2) ? { esrOhms: this.between(1e-3, 100) } : {}),
        });
      else
        parts.push({
          id,
          kind: 'inductor',
          a,
          b,
          henries: this.between(1e-7, 1000),
          ...(this.chance(0.5) ? { dcrOhms: this.between(1e-2, 1e3) } : {}),
        });
    };
    for (let k = 2; k <= nets; k++) passive(net(k), net(this.whole(k)));
    for (let k = this.whole(2 * nets); k > 0; k--) passive(any(), any());
    for (let k = this.whole(4); k > 0; k--) {
      const id = `A${parts.length}`;
      const out = `o${k}`;
      parts.push(
        this.one([
          () => ({ id, kind: 'op-amp', inPlus: any(), inMinus: any(), out, model: this.opAmp() }),
          () => ({
            id,
            kind: 'voltage-amplifier',
            plus: out,
            minus: '0',
            inPlus: any(),
            inMinus: any(),
            gain: this.between(0.1, 1e5) * this.one([1, -1]),
          }),
          () => ({
            id,
            kind: 'transconductor',
            from: '0',
            to: out,
            inPlus: any(),
            inMinus: any(),
            siemens: this.between(1e-7, 1),
          }),
        ])(),
      );
      passive(out, any());
      passive(out, any());
    }
    const coils = parts.filter((p) => (p as { kind: string }).kind === 'inductor') as {
      id: string;
    }[];
    if (coils.length > 1 && this.chance(0.5))
      parts.push({
        id: 'K',
        kind: 'coupling',
        inductors: [coils[0].id, coils[1].id],
        k: 1.9 * (this.random() - 0.5),
      });
    return readCircuit(JSON.parse(JSON.stringify(makeCircuit(parts as never))));
  }

  private opAmp(): unknown {
    if (this.chance(0.4)) return 'ideal';
    return {
      gainBandwidthHz: this.between(1e4, 1e8),
      dcGainDb: 60 + 60 * this.random(),
      ...(this.chance(0.4) ? { outputOhms: this.between(1, 200) } : {}),
      ...(this.chance(0.3) ? { secondPoleHz: this.between(1e5, 1e8) } : {}),
      ...(this.chance(0.3) ? { inputOhms: this.between(1e5, 1e12) } : {}),
      ...(this.chance(0.3) ? { inputFarads: this.between(1e-13, 1e-10) } : {}),
    };
  }

  /**
   * Bent devices between supplies: every kind, with and without charges.
   *
   * @param further also coils, coupled ones among them, switches, potentiometers, op-amps on their
   *   supplies and amplifiers with a controlled bias
   */
  bent(further = false): Circuit {
    const count = 2 + this.whole(7);
    const nets = ['0', 'vp', ...Array.from({ length: count }, (_, k) => `n${k}`)];
    const any = () => this.one(nets);
    const parts: object[] = [
      { id: 'VP', kind: 'voltage-source', plus: 'vp', minus: '0', dcVolts: 3 + 20 * this.random() },
      {
        id: 'V',
        kind: 'voltage-source',
        plus: 'in',
        minus: '0',
        acVolts: 1,
        waveform: { shape: 'sine', amplitudeVolts: 0.5, frequencyHz: 1000 },
      },
      { id: 'RI', kind: 'resistor', a: 'in', b: 'n0', ohms: 1000 },
    ];
    const resistor = (a: string, b: string): void => {
      if (a !== b)
        parts.push({ id: `R${parts.length}`, kind: 'resistor', a, b, ohms: this.between(50, 1e6) });
    };
    for (let k = 0; k < count; k++) {
      resistor(`n${k}`, this.one(['0', 'vp']));
      resistor(`n${k}`, any());
      if (this.chance(0.7))
        parts.push({
          id: `C${parts.length}`,
          kind: 'capacitor',
          a: `n${k}`,
          b: '0',
          farads: this.between(1e-11, 1e-6),
        });
    }
    for (let k = 1 + this.whole(6); k > 0; k--) parts.push(this.device(`X${parts.length}`, any));
    if (further) parts.push(...this.furtherParts(any));
    return readCircuit(JSON.parse(JSON.stringify(makeCircuit(parts as never))));
  }

  private furtherParts(any: () => string): object[] {
    const coil = (id: string) => ({
      id,
      kind: 'inductor',
      a: any(),
      b: any(),
      henries: this.between(1e-4, 1),
      dcrOhms: this.between(0.1, 100),
    });
    const parts: object[] = [
      {
        id: 'XA',
        kind: 'op-amp',
        inPlus: any(),
        inMinus: any(),
        out: any(),
        supplyPlus: 'vp',
        supplyMinus: this.one(['0', 'vn']),
        model: {
          gainBandwidthHz: this.between(1e5, 1e7),
          dcGainDb: 90,
          slewVoltsPerSecond: this.between(1e5, 1e7),
          headroomVolts: 1,
          outputOhms: 50,
          ...(this.chance(0.5) ? { outputAmps: 0.02 } : {}),
          ...(this.chance(0.5) ? { secondPoleHz: 2e7 } : {}),
        },
      },
      { id: 'VN', kind: 'voltage-source', plus: 'vn', minus: '0', dcVolts: -9 },
      {
        id: 'XB',
        kind: 'ota',
        inPlus: any(),
        inMinus: any(),
        out: any(),
        bias: any(),
        biasSiemens: this.between(1e-6, 1e-4),
      },
      { id: 'PT', kind: 'potentiometer', a: any(), wiper: any(), b: '0', ohms: 1e4, turn: 0.3 },
    ];
    if (this.chance(0.5)) parts.push(coil('L1'), coil('L2'));
    if (parts.length > 4 && this.chance(0.5))
      parts.push({ id: 'K', kind: 'coupling', inductors: ['L1', 'L2'], k: 0.9 });
    return parts;
  }

  private device(id: string, any: () => string): object {
    const charges = this.chance(0.5);
    const farads = () => (charges ? this.between(1e-13, 1e-10) : 0);
    return this.one([
      () => ({
        id,
        kind: 'diode',
        anode: any(),
        cathode: any(),
        model: {
          saturationAmps: this.between(1e-16, 1e-9),
          emissionCoefficient: this.one([1, 1.5, 2]),
          junctionFarads: farads(),
          transitSeconds: charges ? 1e-8 : 0,
        },
      }),
      () => ({
        id,
        kind: 'transistor',
        collector: any(),
        base: any(),
        emitter: any(),
        model: {
          polarity: this.one(['npn', 'pnp']),
          saturationAmps: this.between(1e-16, 1e-13),
          betaForward: this.one([50, 200, 500]),
          betaReverse: 1 + 2 * this.random(),
          ...(this.chance(0.4) ? { earlyVolts: 40 + 100 * this.random() } : {}),
          baseEmitterFarads: farads(),
          baseCollectorFarads: farads(),
          transitSeconds: charges ? 4e-10 : 0,
        },
      }),
      () => ({
        id,
        kind: 'jfet',
        drain: any(),
        gate: any(),
        source: any(),
        model: {
          polarity: this.one(['n', 'p']),
          saturatedDrainAmps: this.between(5e-4, 1e-2),
          pinchOffVolts: 0.5 + 4 * this.random(),
          lambdaPerVolt: this.chance(0.5) ? 0.02 : 0,
          gateSourceFarads: farads(),
          gateDrainFarads: farads(),
        },
      }),
      () => ({
        id,
        kind: 'ota',
        inPlus: any(),
        inMinus: any(),
        out: any(),
        biasAmps: this.between(1e-6, 1e-3),
        ...(this.chance(0.3) ? { diodeAmps: 1e-3 } : {}),
      }),
      () => ({
        id,
        kind: 'op-amp',
        inPlus: any(),
        inMinus: any(),
        out: any(),
        model: {
          gainBandwidthHz: 3e6,
          dcGainDb: 100,
          slewVoltsPerSecond: 5e6,
          supply: { plusVolts: 12, minusVolts: -12 },
          headroomVolts: 1,
          outputOhms: 50,
          ...(this.chance(0.5) ? { outputAmps: 0.02 } : {}),
        },
      }),
      () => ({
        id,
        kind: 'photocell',
        a: any(),
        b: any(),
        lampPlus: any(),
        lampMinus: '0',
        curve: [
          { amps: 1e-4, ohms: 1e5 },
          { amps: 1e-2, ohms: 500 },
        ],
      }),
    ])();
  }
}
