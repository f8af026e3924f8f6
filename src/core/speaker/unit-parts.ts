import type { Part } from '@/core/circuit/schema';
import type { UnitFigures } from './figures';

/**
 * A unit as its terminals see it, in parts of a circuit: the voice coil, and in a row with it what
 * moves, seen through the force factor. Mass is then a capacitor, compliance a coil, all of them
 * side by side: with w = 2 pi fs, C = Qes/(w Re), L = Re/(w Qes), R = Re Qms/Qes (Small 1972).
 * The air of a closed box, so many times stiffer as Vas is larger than it, is a further coil; a vent
 * lies in a row with that, and so does what leaks.
 *
 * @param id every part and inner net carries it in front
 */
export function unitParts(
  unit: Omit<UnitFigures, 'sdSquareCentimetres' | 'vasLitres'> & { vasLitres?: number },
  { id, plus, minus }: { id: string; plus: string; minus: string },
): Part[] {
  const { reOhms, leHenries, qes, qms, lossyInductance } = unit;
  const w = 2 * Math.PI * unit.fsHz;
  const moving = `${id}.moving`;
  const give = reOhms / (w * qes);
  const row: ((a: string, b: string) => Part[])[] = [
    (a, b) => [{ id: `${id}.re`, kind: 'resistor', a, b, ohms: reOhms }],
  ];
  if (leHenries > 0)
    row.push((a, b) => [{ id: `${id}.le`, kind: 'inductor', a, b, henries: leHenries }]);
  if (lossyInductance)
    row.push((a, b) => [
      { id: `${id}.lossy`, kind: 'inductor', a, b, henries: lossyInductance.henries },
      { id: `${id}.eddy`, kind: 'resistor', a, b, ohms: lossyInductance.ohms },
    ]);
  const coil = row.flatMap((part, i) =>
    part(i === 0 ? plus : `${id}.coil${i}`, i === row.length - 1 ? moving : `${id}.coil${i + 1}`),
  );
  return [
    ...coil,
    { id: `${id}.mass`, kind: 'capacitor', a: moving, b: minus, farads: qes / (w * reOhms) },
    { id: `${id}.give`, kind: 'inductor', a: moving, b: minus, henries: give },
    { id: `${id}.loss`, kind: 'resistor', a: moving, b: minus, ohms: (reOhms * qms) / qes },
    ...boxParts(unit, give, { id, moving, minus }),
  ];
}

function boxParts(
  { mounting, vasLitres }: Pick<UnitFigures, 'mounting'> & { vasLitres?: number },
  give: number,
  { id, moving, minus }: { id: string; moving: string; minus: string },
): Part[] {
  if (mounting.kind === 'open' || vasLitres === undefined) return [];
  const henries = (give * mounting.litres) / vasLitres;
  const air = (b: string): Part => ({ id: `${id}.air`, kind: 'inductor', a: moving, b, henries });
  if (mounting.kind === 'closed') return [air(minus)];
  const wb = 2 * Math.PI * mounting.tuningHz;
  const farads = 1 / (wb * wb * henries);
  const { leakQ } = mounting;
  const end = leakQ === undefined ? minus : `${id}.leak`;
  return [
    air(`${id}.vent`),
    { id: `${id}.port`, kind: 'capacitor', a: `${id}.vent`, b: end, farads },
    ...(leakQ === undefined
      ? []
      : [
          {
            id: `${id}.leaks`,
            kind: 'resistor' as const,
            a: end,
            b: minus,
            ohms: (wb * henries) / leakQ,
          },
        ]),
  ];
}
