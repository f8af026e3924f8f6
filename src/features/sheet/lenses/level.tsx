import { LevelOrPhase } from '../frequency-lens';
import type { Lens, LensProps } from './lens';

const Picture = (props: LensProps) => <LevelOrPhase lens="level" {...props} />;

export const level: Lens = {
  id: 'level',
  title: 'Level',
  about: 'How loud each frequency comes out, against the source',
  overFrequency: true,
  banded: true,
  Picture,
};
