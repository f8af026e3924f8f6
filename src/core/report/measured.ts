import { foresee, type Foreseen } from '@/core/bench/foreseen';
import { isCrossover } from '@/core/crossover/crossover-design';
import { ReedError } from '@/core/errors';
import type { Pause } from '@/core/lenses/layers';
import type { Library } from '@/core/library';
import type { Sheet } from '@/core/sheet/schema';

/** What several sections stand on. */
export interface Measured {
  /** What a thousand boards measure like; nothing for speakers and banks, or where it cannot be solved. */
  foreseen: Foreseen | null;
}

export async function measured(sheet: Sheet, library: Library, pause: Pause): Promise<Measured> {
  if (isCrossover(sheet) || sheet.bank) return { foreseen: null };
  try {
    return { foreseen: await foresee(sheet, library.drawer, pause) };
  } catch (error) {
    if (!(error instanceof ReedError) || error.code === 'stopped') throw error;
    return { foreseen: null };
  }
}
