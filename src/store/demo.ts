import type { DriverEntry } from '@/core/library/driver';
import type { Sheet } from '@/core/sheet/schema';

/**
 * The demo sheets as they were designed when the program was made, dated now. Fetched only where
 * they are wanted: on a new shelf, and when somebody brings them back.
 *
 * @param at now, ISO
 */
export async function madeDemo(at: string): Promise<Sheet[]> {
  const { default: made } = await import('@/core/demo/made.json');
  return (made as unknown as Sheet[]).map((sheet) => ({
    ...structuredClone(sheet),
    createdAt: at,
    updatedAt: at,
    keeps: sheet.keeps.map((keep) => ({ ...keep, at })),
  }));
}

/** The drivers that demo sheets end in. */
export async function madeDrivers(): Promise<DriverEntry[]> {
  const { demoDrivers } = await import('@/core/demo/drivers');
  return demoDrivers();
}
