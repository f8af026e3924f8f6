import { readCircuitIn } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { isVisible } from '@/core/text';
import { makeSheet } from './make';
import { stageOfCircuit } from './own-stage';
import { sheetFault } from './read';
import type { Sheet } from './schema';

/** Whether a document is a circuit file, or carries a circuit. */
export function carriesCircuit(document: unknown): boolean {
  if (typeof document !== 'object' || document === null) return false;
  if ('circuit' in document) return true;
  return 'format' in document && document.format === 'jaunty-reed/circuit';
}

/**
 * A circuit file as a sheet with one stage of its own, its net `out` heard.
 *
 * @param id of the sheet that comes of it
 * @param at now, ISO
 * @throws ReedError `circuit` in words; nothing is half-read
 */
export function sheetOfCircuit(document: unknown, id: string, at: string, title: string): Sheet {
  const circuit = readCircuitIn(document);
  const named = isVisible(circuit.title) ? circuit.title : title;
  const made = makeSheet({
    id,
    title: isVisible(named) ? named.slice(0, 120) : 'A circuit',
    at,
    ask: { kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 },
    load: { name: 'Nothing', ohms: null },
    readings: [
      { id: 'r1', measure: { measure: 'level', atHz: 1000 } },
      { id: 'r2', measure: { measure: 'peak-level' } },
    ],
  });
  const stage = stageOfCircuit(circuit, { id: 's1' });
  const sheet = { ...made, ways: [{ ...made.ways[0], stages: [stage] }] };
  const fault = sheetFault(sheet, () => false);
  if (fault) throw new ReedError('circuit', `The circuit cannot be drawn: ${fault.message}.`);
  return sheet;
}
