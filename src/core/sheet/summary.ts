import { hasOrder, mainHz, placedBy, type AskKind } from '@/core/design/ask';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet } from './schema';
import { stageName } from './stage';

/** What a sheet is for, in the few facts that a card shows. */
export interface WhatItDoes {
  kind: AskKind;
  order?: number;
  placedBy: 'edge' | 'band' | 'centre';
  hz: number;
  /** Channels of a bank. */
  channels?: number;
  /** Ways of a crossover; the frequency is where the first hands over. */
  ways?: number;
}

export function whatItDoes({ ask, bank, crossover, ways }: Sheet): WhatItDoes {
  return {
    kind: ask.kind,
    ...(ask.order === undefined || !hasOrder(ask.kind) ? {} : { order: ask.order }),
    placedBy: placedBy(ask.kind),
    hz: crossover?.splitsHz[0] ?? mainHz(ask),
    ...(crossover ? { ways: ways.length } : {}),
    ...(bank ? { channels: bank.channels.length } : {}),
  };
}

/** Everything a sheet may be looked for by, in small letters: name, ask, circuits, ends. */
export function sheetWords(sheet: Sheet): string {
  const { ask, ways, keeps, title, bank, crossover, source } = sheet;
  const hz = mainHz(ask);
  const topologies = new Set(ways.flatMap((w) => w.stages.map(stageName)));
  return [
    title,
    bank ? 'bank of bands' : '',
    crossover ? `loudspeaker crossover ${ways.length}-way passive` : '',
    ask.kind,
    ask.kind.replace('-', ' '),
    ask.shape,
    ask.order === undefined ? '' : `order ${ask.order}`,
    formatQuantity(hz, 'hertz', { digits: 3 }),
    formatQuantity(hz, 'hertz', { digits: 3, style: 'plain' }),
    `${Number(hz.toPrecision(6))}`,
    ...topologies,
    source.name,
    ...ways.map((w) => w.to.name),
    ...keeps.map((k) => k.name),
  ]
    .join(' ')
    .toLowerCase();
}
