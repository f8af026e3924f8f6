/**
 * A place between two ends, evenly or by ratio, as pitch and resistance are felt. By ratio there is no
 * way through zero: such a stretch is even.
 *
 * @param at from 0 to 1
 */
export const along = (from: number, to: number, at: number, byRatio: boolean): number =>
  byRatio && from * to > 0 ? from * (to / from) ** at : from + (to - from) * at;
