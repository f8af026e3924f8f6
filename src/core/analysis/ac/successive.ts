import type { Circuit } from '@/core/circuit/schema';
import { AcAnalysis } from './ac';

/** Solves circuits one after another; each takes over the equations of the one before where it is alike. */
export class Successive {
  private before: AcAnalysis | undefined;

  /** @throws ReedError as `AcAnalysis` */
  of(circuit: Circuit): AcAnalysis {
    if (!this.before?.take(circuit)) this.before = new AcAnalysis(circuit);
    return this.before;
  }
}
