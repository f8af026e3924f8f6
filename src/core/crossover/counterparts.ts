import type { Stage, Way } from '@/core/sheet/schema';
import { designedAs } from '@/core/sheet/stage';
import type { Slot } from '@/core/slots';
import { ALIGNMENTS, hasOrder, polesOf, type EdgeSlot } from '@/core/slots/section';
import { activeStages, dipFor, passOf, type ActiveStage } from './active';

/*
 * What stands in a way by hand and has its like on the other side of the amplifier: sections beside
 * those that follow the ask, and what takes a hump down.
 */

/**
 * The stages of a way that were put in besides what is asked for. One that took the place of an asked
 * section, by a knob for one, is not among them: the asked one is designed anew.
 */
function besides({ stages }: Way, asked: readonly EdgeSlot[]): Stage[] {
  return stages.filter((stage) => {
    if (stage.origin === 'ask' || stage.bypassed) return false;
    const pass = passOf(stage);
    return (
      !asked.some((s) => s.pass === pass) ||
      stages.some((s) => s.origin === 'ask' && passOf(s) === pass)
    );
  });
}

/** What was put into a passive way, as stages ahead of an amplifier. */
export function activeLikes(way: Way, asked: readonly EdgeSlot[]): ActiveStage[] {
  return besides(way, asked).flatMap(({ slot }): ActiveStage[] => {
    switch (slot?.is) {
      case 'section':
        return slot.pass === 'band'
          ? [
              ...activeStages({ ...slot, pass: 'high', hz: slot.lowerHz }),
              ...activeStages({ ...slot, pass: 'low', hz: slot.upperHz }),
            ]
          : activeStages(slot);
      case 'trap-across':
      case 'trap-in-line':
        return [dipFor({ hz: slot.hz, db: slot.downDb, octaves: slot.octaves })];
      default:
        return [];
    }
  });
}

/** What was put into a way of op-amps, as slots behind an amplifier. */
export function passiveLikes(way: Way, asked: readonly EdgeSlot[], ohms: number): Slot[] {
  return besides(way, asked).flatMap((stage): Slot[] => {
    const { target } = stage;
    const topology = designedAs(stage);
    if (!target || !topology) return [];
    if (topology.kind === 'low-pass' || topology.kind === 'high-pass')
      return [sectionLike(topology.kind, target, ohms)];
    if (topology.kind !== 'peak' || !target.q || !(target.boost! < 1)) return [];
    // A dip: the width of its Q, x - 1/x = 1/Q with x = 2^(octaves/2).
    const octaves = 2 * Math.log2((1 / target.q + Math.sqrt(target.q ** -2 + 4)) / 2);
    const downDb = -20 * Math.log10(target.boost!);
    return [
      {
        is: 'trap-across',
        hz: target.f0Hz,
        downDb: tidy(downDb),
        octaves: tidy(octaves),
        sourceOhms: ohms / 2,
      },
    ];
  });
}

/** A section of first or second order, of the alignment whose poles come nearest. */
function sectionLike(
  kind: 'low-pass' | 'high-pass',
  { f0Hz, q }: NonNullable<Stage['target']>,
  ohms: number,
): EdgeSlot {
  const pass = kind === 'low-pass' ? 'low' : 'high';
  if (q === undefined)
    return { is: 'section', pass, alignment: 'butterworth', order: 1, hz: tidy(f0Hz), ohms };
  const [nearest] = ALIGNMENTS.filter((alignment) => hasOrder(alignment, 2))
    .map((alignment) => ({ alignment, pole: polesOf({ alignment, order: 2 })[0] }))
    .sort((a, b) => Math.abs(Math.log(a.pole.q! / q)) - Math.abs(Math.log(b.pole.q! / q)));
  const { alignment, pole } = nearest;
  const hz = pass === 'low' ? f0Hz / pole.w0 : f0Hz * pole.w0;
  return { is: 'section', pass, alignment, order: 2, hz: tidy(hz), ohms };
}

/** Without what is lost on the way there and back. */
const tidy = (x: number): number => Number(x.toPrecision(9));
