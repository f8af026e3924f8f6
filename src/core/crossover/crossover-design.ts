import type { SheetDesign, Way, WayEnd } from '@/core/sheet/schema';

/** A design that is a crossover. */
export type CrossoverDesign = SheetDesign & Required<Pick<SheetDesign, 'crossover'>>;

export const isCrossover = (design: SheetDesign): design is CrossoverDesign =>
  design.crossover !== undefined;

export type DriverEnd = Extract<WayEnd, { is: 'driver' }>;

/** What a way of a crossover ends in. */
export const driverEnd = ({ to }: Way): DriverEnd => to as DriverEnd;
