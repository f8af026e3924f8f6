import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { readArgs, UsageError, type Command } from '../command';
import { FREQUENCY_OPTIONS, FREQUENCY_USAGE, frequenciesOf } from '../frequencies';
import { readSpeakerFile } from '../speaker-file';

/** What a loudspeaker sounds like and loads its amplifier with. */
export const speaker: Command = {
  name: 'speaker',
  usage: `SPEAKER|SHEET ${FREQUENCY_USAGE} [--up DEGREES] [--side DEGREES]`,
  summary: 'load, sound of each driver and their sum at the listening place, over frequency',
  run(args) {
    const { values, positionals } = readArgs(
      args,
      { ...FREQUENCY_OPTIONS, up: { type: 'string' }, side: { type: 'string' } },
      1,
    );
    const frequenciesHz = Float64Array.from(frequenciesOf(values));
    if (frequenciesHz.some((hz) => !(hz > 0)))
      throw new UsageError('a loudspeaker is solved above zero hertz');
    const turn = { up: degrees('up', values.up), side: degrees('side', values.side) };
    const solved = new SolvedSpeaker(readSpeakerFile(positionals[0]));
    const electrical = solved.electrical(frequenciesHz);
    const { sum, ways } = solved.sound(electrical, turn);
    const named: Record<string, ComplexTrace> = {};
    solved.units.forEach(({ id }, i) => (named[id] = ways[i]));
    return { frequenciesHz, impedance: solved.impedance(electrical), sum, ways: named };
  },
};

function degrees(name: string, text = '0'): number {
  const number = Number(text);
  if (text.trim() === '' || !(Math.abs(number) <= 180))
    throw new UsageError(`--${name} must be degrees from -180 to 180`);
  return number;
}
