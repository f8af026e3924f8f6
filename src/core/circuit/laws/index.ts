import type { Part } from '../schema';
import type { StampMode } from '../stamper';
import { diodeLaws } from './diode';
import { jfetLaws } from './jfet';
import type { Law } from './law';
import { opAmpLaws } from './op-amp';
import { otaLaws } from './ota';
import { photocellLaws } from './photocell';
import { transistorLaws } from './transistor';

/** The laws of a part's elements, in the order that its stamp writes them. */
export function lawsOf(part: Part, mode: StampMode): Law[] {
  switch (part.kind) {
    case 'diode':
      return diodeLaws(part);
    case 'transistor':
      return transistorLaws(part);
    case 'jfet':
      return jfetLaws(part);
    case 'ota':
      return otaLaws(part);
    case 'op-amp':
      return opAmpLaws(part, mode);
    case 'photocell':
      return photocellLaws(part);
    default:
      return [];
  }
}
