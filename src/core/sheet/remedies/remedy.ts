import type { Joint } from '../joints';
import type { SheetDesign, Stage } from '../schema';

/** What is to be mended: a joint of the first way of a design, looked at down to a frequency. */
export interface Complaint {
  design: SheetDesign;
  joint: Joint;
  /** The lowest frequency that is of interest. */
  fromHz: number;
}

/** The stages of the way as a remedy would have them, and what it does in words. */
export interface Treatment {
  stages: Stage[];
  words: string;
}

/** A way to lose less at a joint. */
export interface Remedy {
  id: string;
  /** What it would do, the mildest first; nothing where it does not apply. */
  treatments(complaint: Complaint): Treatment[];
}

/** The stages of the path with one of them changed. */
export const withChanged = ({ design }: Complaint, changed: Stage): Stage[] =>
  design.ways[0].stages.map((s) => (s.id === changed.id ? changed : s));

/** The stage behind the joint, if one stands there. */
export const stageBehind = ({ design, joint }: Complaint): Stage | undefined =>
  design.ways[0].stages.find((s) => s.id === joint.after);

/** “stage 2” */
export const placeOf = ({ design }: Complaint, id: string): string =>
  `stage ${design.ways[0].stages.findIndex((s) => s.id === id) + 1}`;
