import type { ComponentType } from 'react';
import type { CrossoverPicture } from '@/core/crossover/picture';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';

export interface CrossoverLensProps {
  sheet: Sheet;
  crossover: Crossover;
  picture: CrossoverPicture;
}

/** One way of looking at a crossover. One file, and one line in the index. */
export interface CrossoverLens {
  id: string;
  title: string;
  about: string;
  Picture: ComponentType<CrossoverLensProps>;
}
