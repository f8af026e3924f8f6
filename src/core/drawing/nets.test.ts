import fc from 'fast-check';
import { PART_KINDS } from '@/core/parts';
import { FACINGS } from '@/core/parts/geometry';
import { isPart, pinsOf, type Drawing, type Point } from './drawing';
import { drawn } from './grow/layout';
import { readNets } from './nets';
import { sketch } from './sketch';
import { randomCircuit } from './testing/random-circuit';

const netsOf = (drawing: Drawing) =>
  Object.fromEntries(readNets(drawing).parts.map((p) => [p.id, p.nets]));

describe('nets are read off the lines', () => {
  test('a divider: in, out and ground', () => {
    const drawing = sketch(`in 0,2 / 0,2 2,2 / resistor R1 2,2 right / 6,2 10,2 / out 10,2
      8,2 8,3 / resistor R2 8,3 down / ground 8,7`);
    expect(netsOf(drawing)).toEqual({ R1: { a: 'in', b: 'out' }, R2: { a: 'out', b: '0' } });
    const { dots, faults, ports } = readNets(drawing);
    expect(dots).toEqual([[8, 2]]);
    expect(faults).toEqual([]);
    expect(ports.map((p) => [p.name, p.flow, p.net])).toEqual([
      ['in', 'in', 'in'],
      ['out', 'out', 'out'],
    ]);
  });

  test('an end that touches a line joins it; lines that only cross do not', () => {
    const crossing = sketch(`in 0,4 / 0,4 12,4 / out 12,4 / 6,0 6,8
      resistor R1 6,0 up / ground 6,-4 / resistor R2 6,8 down / ground 6,12`);
    const { R1, R2 } = netsOf(crossing);
    expect(R1.a).toBe(R2.a);
    expect(R1.a).not.toBe('in');
    const joining = sketch(
      `in 0,4 / 0,4 12,4 / out 12,4 / 6,0 6,4 / resistor R1 6,0 up / ground 6,-4`,
    );
    expect(netsOf(joining).R1.a).toBe('in');
  });

  test('a name that is written twice is one net, and ground is ground whatever is written there', () => {
    const named: Drawing = {
      symbols: [
        ...sketch('resistor R1 0,0 right / resistor R2 20,20 right / resistor R3 0,40 right')
          .symbols,
        { kind: 'name', name: 'rail', at: [4, 0] },
        { kind: 'name', name: 'rail', at: [20, 20] },
        { kind: 'name', name: 'common', at: [4, 40] },
        { kind: 'ground', at: [4, 40] },
      ],
      wires: [],
    };
    const nets = netsOf(named);
    expect(nets.R1.b).toBe('rail');
    expect(nets.R2.a).toBe('rail');
    expect(nets.R3.b).toBe('0');
  });

  test('what hangs on one pin, and lines that slant, are named', () => {
    const loose = sketch(
      'in 0,0 / 0,0 2,0 / resistor R1 2,0 right / 6,0 9,3 / out 12,3 / 12,3 11,3',
    );
    const { faults, slanted } = readNets(loose);
    expect(slanted).toHaveLength(1);
    expect(faults.length).toBeGreaterThan(1);
    expect(faults.join(' ')).toMatch(/net n1 joins fewer than two pins/);
  });

  test('the net at a point is that of the line through it, and none beside', () => {
    const nets = readNets(sketch('in 0,2 / 0,2 8,2 / resistor R1 8,2 right / ground 12,2'));
    expect(nets.netAt([0, 2])).toBe('in');
    expect(nets.netAt([8, 2])).toBe('in');
    expect(nets.netAt([12, 2])).toBe('0');
    expect(nets.netAt([40, 40])).toBeUndefined();
  });

  test('where a drawing lies makes no difference to what it says', () => {
    const move = (drawing: Drawing, [dx, dy]: Point): Drawing => ({
      symbols: drawing.symbols.map((s) => ({ ...s, at: [s.at[0] + dx, s.at[1] + dy] })),
      wires: drawing.wires.map((w) => w.map(([x, y]): Point => [x + dx, y + dy])),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }),
        fc.integer({ min: -90, max: 90 }),
        fc.integer({ min: -90, max: 90 }),
        (seed, dx, dy) => {
          const drawing = drawn(randomCircuit(seed, 8));
          expect(netsOf(move(drawing, [dx, dy]))).toEqual(netsOf(drawing));
        },
      ),
      { numRuns: 20 },
    );
  });

  test('in which order wires and symbols are listed makes none either', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (seed) => {
        const { symbols, wires } = drawn(randomCircuit(seed, 8));
        const turned = {
          symbols: [...symbols].reverse(),
          wires: wires.map((w) => [...w].reverse()),
        };
        /** Nets by who is joined, whatever they are called. */
        const joined = (drawing: Drawing) => {
          const by = new Map<string, string[]>();
          for (const { id, nets } of readNets(drawing).parts)
            for (const [pin, net] of Object.entries(nets))
              by.set(net, [...(by.get(net) ?? []), `${id}.${pin}`]);
          return [...by.values()].map((pins) => pins.sort().join(' ')).sort();
        };
        expect(joined(turned)).toEqual(joined({ symbols, wires }));
      }),
      { numRuns: 20 },
    );
  });
});

describe('sketches', () => {
  test('every kind is drawn by its word, and lies as it says', () => {
    for (const { kind, noun, symbol } of PART_KINDS)
      for (const facing of FACINGS) {
        const { symbols } = sketch(`${noun.replaceAll(' ', '-')} X1 10,10 ${facing}`);
        const part = symbols.find(isPart)!;
        expect(part).toMatchObject({ kind, id: 'X1', at: [10, 10] });
        expect(pinsOf(part)).toHaveLength(symbol.pins.filter((p) => !p.optional).length);
      }
  });

  test('optional pins are drawn where they are asked for', () => {
    const bare = sketch('op-amp A1 0,0').symbols[0];
    const supplied = sketch('op-amp A1 0,0 with supplyPlus with supplyMinus').symbols[0];
    const names = (symbol: typeof bare) => pinsOf(symbol).map((p) => p.terminal);
    expect(names(supplied).filter((n) => !names(bare).includes(n))).toEqual([
      'supplyPlus',
      'supplyMinus',
    ]);
  });

  test.each([
    ['valve V1 0,0', /No symbol: “valve V1 0,0”/],
    ['resistor R1 here', /No point: “here”/],
    ['0,0 2,x', /No point: “2,x”/],
    ['resistor R1 0,0 sideways', /./],
    ['op-amp A1 0,0 with heater', /./],
  ])('“%s” is a defect that names itself, when it is looked at', (text, words) => {
    const drawing = sketch(text);
    expect(() => drawing.symbols).toThrow(words);
  });
});
