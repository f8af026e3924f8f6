import { stretchingKnob, type Stretched } from '@/core/sheet/knobs/stretch';
import type { Control, Sheet } from '@/core/sheet/schema';
import { inSlices } from '@/core/lenses/layers';
import type { Job } from './job';

/** What a knob has to be so that its travel goes from one reading to another. */
export const stretch: Job<
  { sheet: Sheet; control: string; reach: NonNullable<Control['reach']> },
  never,
  Stretched
> = ({ sheet, control, reach }, { pause }) =>
  inSlices(stretchingKnob(sheet, control, reach), pause);
