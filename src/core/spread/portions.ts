import { bandOf, figuresOf } from './bands';
import type { SpreadFrames, SpreadPortion, SpreadResult } from './spread';
import { Tally, type TallyCount } from './tally';

/**
 * A great many boards, counted portion by portion wherever there is room and added up here. The first
 * portion sets the steps in which all others count.
 */
export class PortionSum {
  boards: number;
  private readonly levels: Tally[];
  private readonly phases: Tally[];
  private readonly readings: Tally[];
  private readonly met: Uint32Array;
  private allMet: number;

  /**
   * @param known what fewer boards came to: what parts have to do with it, and the worst corners, do
   * not become better known by more of them
   */
  constructor(
    private readonly known: SpreadResult,
    private readonly first: SpreadPortion,
  ) {
    const tallies = (counts: readonly TallyCount[]) =>
      counts.map((count) => {
        const tally = new Tally(0, count);
        tally.take(count);
        return tally;
      });
    this.boards = first.boards;
    this.levels = tallies(first.levels);
    this.phases = tallies(first.phases);
    this.readings = tallies(first.readings);
    this.met = first.met.slice();
    this.allMet = first.allMet;
  }

  /** The steps to count in. */
  get frames(): SpreadFrames {
    const { levels, phases, readings } = this.first;
    const frames = (counts: readonly TallyCount[]) =>
      counts.map(({ least, step }) => ({ least, step }));
    return { levels: frames(levels), phases: frames(phases), readings: frames(readings) };
  }

  add({ boards, levels, phases, readings, met, allMet }: SpreadPortion): void {
    this.boards += boards;
    levels.forEach((count, k) => this.levels[k].take(count));
    phases.forEach((count, k) => this.phases[k].take(count));
    readings.forEach((count, i) => this.readings[i].take(count));
    met.forEach((count, i) => (this.met[i] += count));
    this.allMet += allMet;
  }

  result(): SpreadResult {
    const { known, boards } = this;
    const { hz } = known.levels;
    return {
      boards,
      readings: known.readings.map((reading, i) => {
        const tally = this.readings[i];
        if (!reading || tally.count === 0) return reading;
        return {
          ...reading,
          ...figuresOf(tally),
          without: boards - tally.count,
          met: reading.met === null ? null : this.met[i] / boards,
        };
      }),
      levels: bandOf(hz, this.levels),
      ...(known.phases ? { phases: bandOf(hz, this.phases) } : {}),
      yield: known.yield === null ? null : this.allMet / boards,
    };
  }
}
