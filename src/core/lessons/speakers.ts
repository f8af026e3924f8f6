import { isCrossover } from '@/core/crossover/crossover-design';
import { crossoverPicture } from '@/core/crossover/picture';
import { shelfSpeaker } from '@/core/demo/crossovers';
import type { Sheet } from '@/core/sheet/schema';
import { decibels, so } from './goals';
import type { Lesson } from './lesson';

/** Two ways of second order, one of them turned round as the textbook says. */
const speaker = (id: string, at: string): Sheet => ({
  ...shelfSpeaker(at),
  id,
  title: turnedRound.title,
  demo: undefined,
});

/** The other way round. */
export const otherWayRound = (sheet: Sheet): Sheet => ({
  ...sheet,
  ways: sheet.ways.map((way) =>
    way.id === 'high' && way.to.is === 'driver'
      ? { ...way, to: { ...way.to, inverted: !way.to.inverted } }
      : way,
  ),
});

/** Why both ways round are tried. */
export const turnedRound: Lesson = {
  id: 'polarity',
  chapter: 'speakers',
  title: 'Why a driver is turned round',
  question:
    'Second order from the textbook: the high driver is turned round, so that the two ways add where they meet. On these drivers the sum has a hole of nearly twenty decibels. Nothing is broken. What does the book not know?',
  turn: 'In the row of the high way, turn its driver the other way round (+ and − exchanged).',
  see: 'The thick curve is the sum, the thin ones the ways. Where both are about equally loud, between 1 and 3 kHz, the sum shows how they stand in time: the lens Phase has both. Tune looks for values that do better still.',
  because:
    'Of second order the two filters are half a turn apart at every frequency, and a driver turned round makes up for that: between resistors. True drivers fall off by themselves, their voice coils and places shift them further, and where they meet these are apart by another amount. So both ways round are tried, and the deeper the null of the wrong one, the better the right one fits.',
  begin: speaker,
  goals: (sheet) => {
    const built = isCrossover(sheet)
      ? crossoverPicture({ ...sheet, keeps: [] }).layers.find((l) => l.id === 'built')
      : undefined;
    const sum = built?.figures.sum?.value;
    return [
      so(
        'The sum, 200 Hz to 15 kHz, within ±4.5 dB',
        sum === undefined
          ? 'cannot be read: are both drivers among the drivers?'
          : `±${decibels(sum)}`,
        sum !== undefined && sum <= 4.5,
      ),
    ];
  },
};
