import { SOURCE } from '@/core/circuit/unit-source';
import { ReedError } from '@/core/errors';
import type { Component } from '@/core/strip/board';
import { componentsOf } from '@/core/strip/components';
import { outNet } from './nets';
import { LOAD_FARADS, LOAD_OHMS, pathCircuit, SOURCE_OHMS } from './path-circuit';
import type { Sheet } from './schema';

const BEYOND: ReadonlySet<string> = new Set([SOURCE, SOURCE_OHMS, LOAD_OHMS, LOAD_FARADS]);

/**
 * What of a sheet’s path is soldered on a board, and the wires that lead to it.
 *
 * @throws ReedError as the path’s circuit, or for a part that cannot be soldered
 */
export function boardComponents(sheet: Sheet): Component[] {
  if (sheet.crossover || sheet.bank)
    throw new ReedError(
      'circuit',
      'A stripboard is planned for one path: a crossover has a board to scale among its lenses, and a bank is built channel by channel.',
    );
  const circuit = pathCircuit(sheet, 0, 'built');
  // The source’s own resistance is in the source.
  const ohms = circuit.parts.find((p) => p.id === SOURCE_OHMS);
  const input = ohms?.kind === 'resistor' ? ohms.b : 'in';
  return componentsOf(circuit, {
    beyond: BEYOND,
    outside: new Map([
      [input, 'in'],
      [outNet(sheet), 'out'],
    ]),
  });
}
