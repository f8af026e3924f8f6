import { makeBank } from '@/core/bank/make';
import { redivided } from '@/core/crossover/make';
import { mainHz, placedAt } from '@/core/design/ask';
import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import { biasedStage, USUAL_BIAS } from '@/core/sheet/bias';
import { cutOffControlOf } from '@/core/sheet/cut-off-control';
import { defaultTarget } from '@/core/sheet/default-target';
import { makeSheet, makeStage } from '@/core/sheet/make';
import { ownStage } from '@/core/sheet/own-stage';
import type { Sheet } from '@/core/sheet/schema';
import { voiceSheet } from '@/core/sheet/voice';
import { topologyOf } from '@/core/topologies';
import type { Cell, CellAsk } from '@/core/cells/cell';
import type { Job } from './jobs';

/**
 * The sheet that a job begins with, placed at a frequency.
 *
 * @param at now, ISO
 * @throws ReedError where nothing can be built there
 */
export function beginSheet(job: Job, hz: number, title: string, at: string): Sheet {
  if (!(hz >= 1e-3) || hz > 1e7)
    throw new ReedError('range', 'The frequency must lie between 1 mHz and 10 MHz.');
  if (job.crossover) return movedTo(job.crossover(at), hz, title);
  const common = { id: 'new', title, at, source: job.source, load: job.load };
  if (job.bank) return makeBank({ ...common, centresHz: job.bank.map((x) => x * hz) });
  if (job.cell)
    return voiceSheet({
      ...common,
      cell: job.cell,
      supply: job.supply,
      ...rangeAbout(job.cell, hz),
    });
  const sheet = makeSheet({ ...common, ask: placedAt(job.ask, hz) });
  const { stages } = job;
  const [way] = sheet.ways;
  if (job.bias)
    return {
      ...sheet,
      readings: job.readings?.(mainHz(sheet.ask)) ?? [],
      view: { ...sheet.view, lens: 'bias', fromHz: 10, toHz: 100_000 },
      ways: [
        {
          ...way,
          stages: [
            biasedStage('s1', job.bias, {
              ...USUAL_BIAS,
              sourceOhms: job.source.ohms,
              loadOhms: job.load.ohms ?? USUAL_BIAS.loadOhms,
            }),
          ],
        },
      ],
    };
  if (job.own)
    return {
      ...sheet,
      readings: job.readings?.(mainHz(sheet.ask)) ?? [],
      ways: [{ ...way, stages: [ownStage('s1')] }],
    };
  if (!stages) return sheet;
  const made = stages.map(({ topology, target, ohms }, i) => {
    const known = topologyOf(topology);
    // A whole ladder has the usual poles of its order.
    const asked = known.limits.poles ? defaultTarget(known, hz) : { f0Hz: hz, ...target };
    return makeStage(`s${i + 1}`, known, asked, sheet.parts, 'hand', { ohms });
  });
  const control = job.controlled ? cutOffControlOf(sheet, made[0], 's1c1') : undefined;
  return {
    ...sheet,
    readings: job.readings?.(mainHz(sheet.ask)) ?? (control ? sheet.readings : []),
    ways: [{ ...way, stages: made }],
    ...(control
      ? { controls: [control], view: { ...sheet.view, lens: 'control', fromHz: 20, toHz: 20_000 } }
      : {}),
  };
}

/** A crossover under another name whose first split lies elsewhere: the others move along. */
function movedTo({ demo: _, ...sheet }: Sheet, hz: number, title: string): Sheet {
  const crossover = sheet.crossover!;
  const by = hz / crossover.splitsHz[0];
  const splitsHz = crossover.splitsHz.map((f) => f * by);
  return { ...redivided(sheet, { ...crossover, splitsHz }), id: 'new', title };
}

/** The range of a cell’s usual width about a frequency, as far as it goes. */
function rangeAbout({ usual, limits }: Cell, hz: number): CellAsk {
  const half = Math.sqrt(usual.highHz / usual.lowHz);
  const lowHz = Math.max(limits.leastHz, hz / half);
  const highHz = Math.min(limits.mostHz, hz * half);
  if (!(lowHz < highHz))
    throw new ReedError(
      'range',
      `This circuit can be planned from ${inWords(limits.leastHz, 'hertz')} to ${inWords(limits.mostHz, 'hertz')}: ask for a frequency within that.`,
    );
  return { lowHz, highHz };
}
