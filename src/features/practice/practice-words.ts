import { placeWords } from '@/core/bench/place-words';
import type { Comparison } from '@/core/bench/compare';
import type { Found } from '@/core/practice/measure';
import type { Asked } from '@/core/practice/record';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Fault } from '@/core/rig/fault';
import { offWords, quantityOfPart } from '../bench/suspect-words';

/** What was measured, and where. */
export function askedWords(
  asked: Asked,
  meeting: Comparison['meeting'],
  mark: DecimalMark,
): string {
  switch (asked.is) {
    case 'level':
      return `${placeWords(asked.net, meeting)} at ${formatQuantity(asked.hz, 'hertz', { digits: 3, unit: true, mark })}`;
    case 'sweep':
      return `a sweep, ${placeWords(asked.net, meeting)}`;
    case 'resistance':
      return `${asked.between.map((net) => placeWords(net, meeting)).join(' to ')}, power off`;
    case 'part':
      return `${asked.part}, one leg lifted`;
  }
}

const decibels = (db: number, mark: DecimalMark) => `${formatFixed(db, 2, mark)} dB`;

const ohmsWords = (ohms: number, mark: DecimalMark): string =>
  ohms === Infinity
    ? 'open'
    : ohms === 0
      ? 'joined'
      : formatQuantity(ohms, 'ohms', { digits: 4, unit: true, mark });

/** What was read, and what a sound board would have given. */
export function foundWords(
  found: Found,
  asked: Asked,
  mark: DecimalMark,
): { read: string; sound: string } {
  switch (found.is) {
    case 'level':
      return { read: decibels(found.db, mark), sound: decibels(found.shouldDb, mark) };
    case 'sweep':
      return { read: 'in the picture', sound: 'in the picture' };
    case 'resistance':
      return { read: ohmsWords(found.ohms, mark), sound: ohmsWords(found.shouldOhms, mark) };
    case 'part': {
      const kind = quantityOfPart(asked.is === 'part' ? asked.part : '');
      const print = (value: number) => formatQuantity(value, kind, { digits: 3, unit: true, mark });
      return {
        read: found.value === null ? 'nothing there' : print(found.value),
        sound: print(found.should),
      };
    }
  }
}

/** What was wrong with a board. */
export function faultWords(fault: Fault, mark: DecimalMark): string {
  switch (fault.is) {
    case 'missing':
      return `${fault.part} was not soldered in`;
    case 'shorted':
      return `solder lay across ${fault.part}`;
    case 'reversed':
      return `${fault.part} was in the wrong way round`;
    case 'swapped':
      return `${fault.parts.join(' and ')} stood in each other’s places`;
    case 'factor':
      return `${fault.part} was ${offWords(fault.factor, mark)}`;
    case 'value':
      return `${fault.part} was ${formatQuantity(fault.value, quantityOfPart(fault.part), { digits: 3, unit: true, mark })}`;
  }
}
