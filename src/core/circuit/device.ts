import type { z } from 'zod';
import type { PartBase } from './part';
import type { Stamper } from './stamper';

/** Everything the engine knows of one kind of part. One kind, one file under `devices/`. */
export interface Device<P extends PartBase = PartBase> {
  kind: P['kind'];
  schema: z.ZodType<P>;
  /** The nets it touches, by terminal. */
  terminals(part: P): Record<string, string>;
  /**
   * Groups of terminals that conduct among themselves at d.c.; used to find nets left floating.
   * Control inputs that draw no current stand in no group.
   */
  conducts(part: P): string[][];
  /** The same above d.c., where that is more. */
  conductsAbove?(part: P): string[][];
  /** It only holds or passes what others set. */
  passive?: true;
  /** Nets it drives: what an amplifier can be driven too far at. */
  drives?(part: P): string[];
  /** Nets whose voltage it holds, whatever hangs on them: what hangs there loads nothing else. */
  holds?(part: P): string[];
  /** The value that stores: dividing it moves everything up in frequency. */
  stores?: string;
  /** Watts it takes at rest, from the volts of its nets; devices with a law of their own tell by that. */
  takes?(part: P, volts: (net: string) => number): number;
  /** True where it fixes a voltage between the terminals of each group (sources, inductors at d.c.). */
  fixesVoltage?: 'always' | 'at-dc';
  /** Couplings refer to other parts and are stamped after them. */
  stampLast?: boolean;
  stamp(part: P, s: Stamper): void;
}

/** Keeps the part type of a definition while the registry holds them all alike. */
export function defineDevice<P extends PartBase>(device: Device<P>): Device<P> {
  return device;
}
