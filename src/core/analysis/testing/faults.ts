import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readCircuitIn, type Circuit } from '@/core/circuit/schema';

const FOLDER = join(__dirname, '../../fixtures/faults');

/** A document of the circuits that were got wrong once. */
export const faultDocument = (name: string): unknown =>
  JSON.parse(readFileSync(join(FOLDER, `${name}.json`), 'utf8')) as unknown;

/** Its circuit. */
export const faultCircuit = (name: string): Circuit => readCircuitIn(faultDocument(name));
