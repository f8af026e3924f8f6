import { isCrossover } from '@/core/crossover/crossover-design';
import { hasAmplifiers } from '@/core/crossover/active';
import { figuresOf } from '@/core/differences/figures';
import { inWords } from '@/core/quantity/format';
import { supplyWords } from '@/core/sheet/supply-words';
import type { ReportBlock } from '../report';
import type { SectionKind, SectionSubject } from '../sheet-report';

/** What it wants, and what to be careful of. */
export const usingIt: SectionKind = {
  title: 'Using it',
  write: (subject) => [{ is: 'list', items: itemsOf(subject) }] satisfies ReportBlock[],
};

function itemsOf({ sheet }: SectionSubject): string[] {
  if (isCrossover(sheet)) {
    const least = figuresOf(sheet).find((f) => f.id === 'impedance');
    const drivers = sheet.ways.map((w) => w.to.name).filter(Boolean);
    const splits = sheet.crossover.splitsHz.map((hz) => inWords(hz, 'hertz', 3));
    return [
      `${sheet.ways.length} ways: ${drivers.join(', ')}${splits.length > 0 ? `; handed over at ${splits.join(' and ')}` : ''}.`,
      hasAmplifiers(sheet)
        ? 'Every way has an amplifier of its own: connect each to its own driver and no other, and switch on with the level down.'
        : `The amplifier must be rated for the least impedance${least ? `, ${least.words}` : ''}.`,
      'Begin quietly. It can be loud enough to harm hearing; hot resistors and charged capacitors stay so for a while after it is off.',
    ];
  }
  const { supply, opAmp } = sheet.parts;
  return [
    `Supply: ${supplyWords(supply)}, of a ready-made supply that is approved where you live. Amplifiers inside: ${opAmp.name}.`,
    `Made to follow ${sheet.source.name || 'a source'} of ${inWords(sheet.source.ohms, 'ohms', 3)} at ${inWords(sheet.source.volts, 'volts', 3)} r.m.s., and to feed ${[...new Set(sheet.ways.map((w) => w.to.name).filter(Boolean))].join(', ') || 'an input'}.`,
    'Connect it with the power off, and begin with the level down.',
  ];
}
