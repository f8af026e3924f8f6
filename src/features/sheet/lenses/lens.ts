import type { ComponentType } from 'react';
import type { Layer } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';

export interface LensProps {
  sheet: Sheet;
  layers: readonly Layer[];
}

/** A way of looking at the layers of a sheet. */
export interface Lens {
  /** Its name in documents. */
  id: string;
  title: string;
  /** What it shows, for who has not looked through it yet. */
  about: string;
  /** Its picture lies over the frequencies of the sheet’s view. */
  overFrequency?: true;
  /** What tolerances make of it is shown as a band. */
  banded?: true;
  /** It says itself what its lines are: the list of layers is left out. */
  ownKey?: true;
  /** What the picture needs besides: a switch beside its ends, say. */
  Extra?: ComponentType;
  Picture: ComponentType<LensProps>;
}
