import type { Circuit, Part } from '@/core/circuit/schema';
import { readCircuitIn } from '@/core/circuit/schema';
import { mainHz } from '@/core/design/ask';
import { readingContextOf } from '@/core/design/bands';
import { designCircuit } from '@/core/design/circuit';
import { designAsk } from '@/core/design/design';
import { askOfFile, readAsk } from '@/core/design/read';
import type { Band, Landmark } from '@/core/response/landmarks';
import type { ReadingContext } from '@/core/response/readings';
import { readSheetFile } from '@/core/sheet/file';
import { pathLandmarks } from '@/core/sheet/landmarks';
import { contextOf } from '@/core/sheet/layers';
import { outNet } from '@/core/sheet/nets';
import { pathCircuit } from '@/core/sheet/path-circuit';
import { withDrivers } from '@/core/sheet/references';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { usualReadings } from '@/core/sheet/usual-readings';
import { landmarksOf } from '@/core/topologies/figures';
import { readJson } from './command';

/** What a command is asked about: a circuit, an ask or a sheet, each with what goes with it. */
export interface Subject {
  is: 'circuit' | 'ask' | 'sheet';
  circuit: Circuit;
  /** The same with ideal op-amps; of a sheet with exact values, unloaded. */
  ideal: Circuit;
  probe: string;
  readings: readonly Reading[];
  context?: ReadingContext;
  /** Where its curve bends, and the span that it is about; absent where only the circuit tells. */
  landmarks?: readonly Landmark[];
  span?: Band;
  sheet?: Sheet;
}

/** The span about the frequency that an ask is about. */
const BEYOND = 30;

/**
 * A subject from a file: of a sheet its first path as it is built, of an ask the circuit that is
 * designed for it.
 *
 * @throws ReedError `document` or `circuit` naming what is wrong
 */
export function readSubject(path: string): Subject {
  const document = readJson(path);
  switch (formatOf(document)) {
    case 'jaunty-reed/sheet':
      return sheetSubject(document);
    case 'jaunty-reed/ask':
      return askSubject(document);
    default: {
      const circuit = readCircuitIn(document);
      return {
        is: 'circuit',
        circuit,
        ideal: withIdealOpAmps(circuit),
        probe: 'out',
        readings: [],
      };
    }
  }
}

const formatOf = (document: unknown): unknown =>
  typeof document === 'object' && document !== null && 'format' in document
    ? document.format
    : undefined;

function askSubject(document: unknown): Subject {
  const { opAmp, ...ask } = askOfFile(readAsk(document));
  const design = designAsk(ask);
  const hz = mainHz(ask);
  return {
    is: 'ask',
    circuit: designCircuit(design, opAmp).circuit,
    ideal: designCircuit(design, 'ideal').circuit,
    probe: 'out',
    readings: usualReadings(ask),
    context: readingContextOf(ask),
    landmarks: design.stages.flatMap(({ topology, values }) =>
      landmarksOf(topology.kind, topology.figures(values)),
    ),
    span: { fromHz: hz / BEYOND, toHz: hz * BEYOND },
  };
}

function sheetSubject(document: unknown): Subject {
  const read = readSheetFile(document);
  const sheet = withDrivers(read.sheet, read.along.drivers);
  return {
    is: 'sheet',
    circuit: pathCircuit(sheet, 0, 'built'),
    ideal: pathCircuit(sheet, 0, 'ideal'),
    probe: outNet(sheet),
    readings: sheet.readings,
    context: contextOf(sheet),
    landmarks: pathLandmarks(sheet.ways[0], 'built'),
    span: sheet.view,
    sheet,
  };
}

export const withIdealOpAmps = (circuit: Circuit): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((part): Part =>
    part.kind === 'op-amp' ? { ...part, model: 'ideal' } : part,
  ),
});
