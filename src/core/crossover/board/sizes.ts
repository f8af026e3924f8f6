import type { StagePart } from '@/core/sheet/schema';
import { windCoil, type WoundCoil } from '@/core/speaker/coils/wind';
import { USUAL_WIRE } from '../stage-of-slot';

/** What a part takes of a board, lying along: metres. */
export interface PartSize {
  alongMetres: number;
  acrossMetres: number;
  /** Of a coil: how it is wound. */
  coil?: WoundCoil;
}

/** A cemented resistor of ten watts, with its wires bent down. */
const RESISTOR: PartSize = { alongMetres: 0.05, acrossMetres: 0.01 };
/** Film capacitors for loudspeakers: about so many cubic metres a farad, 1.8 times as long as thick. */
const CUBIC_METRES_A_FARAD = 1.2;
const SLIM = 1.8;
/** The smallest of them, and where bipolar electrolytic ones are taken: a sixth of the size. */
const LEAST_THICK = 0.008;
const ELECTROLYTIC_FROM = 33e-6;
const ELECTROLYTIC_PART = 1 / 6;

/** A part as it lies on the board; sizes of parts differ from maker to maker, these are about usual. */
export function sizeOfPart(kind: string, { value, wound }: StagePart): PartSize {
  if (kind === 'inductor') {
    const coil = windCoil(value!, wound?.wireMetres ?? USUAL_WIRE, wound?.core ?? 'air');
    return { alongMetres: coil.outerMetres, acrossMetres: coil.outerMetres, coil };
  }
  if (kind !== 'capacitor') return RESISTOR;
  const part = value! >= ELECTROLYTIC_FROM ? ELECTROLYTIC_PART : 1;
  const volume = value! * CUBIC_METRES_A_FARAD * part;
  // V = pi/4 d^2 l with l = 1.8 d.
  const thick = Math.max(LEAST_THICK, Math.cbrt((4 * volume) / (Math.PI * SLIM)));
  return { alongMetres: SLIM * thick, acrossMetres: thick };
}
