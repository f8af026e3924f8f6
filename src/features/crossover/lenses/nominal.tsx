import { useMemo } from 'react';
import { levelAxis } from '@/ui/chart/axis';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, meanInBand, OverBand } from './over-band';

/** The textbook against the truth: sums about their own means, so that only the shape differs. */
function Picture({ sheet, crossover, picture }: CrossoverLensProps) {
  const { frequenciesHz: x, layers } = picture;
  const shown = useMemo(() => {
    const about = (db: Float64Array) => {
      const mean = meanInBand(x, db, crossover) ?? 0;
      return db.map((v) => v - mean);
    };
    const of = (id: string) => layers.find((l) => l.id === id);
    const [nominal, built] = [of('nominal'), of('built')];
    return [
      ...(built ? [line('built', 'on the true drivers', 'built', x, about(built.sumDb))] : []),
      ...(nominal
        ? [line('nominal', 'on resistances that sound alike', 'ideal', x, about(nominal.sumDb))]
        : []),
    ];
  }, [layers, x, crossover]);
  return (
    <OverBand
      title="The same network on nominal loads and on the true drivers"
      sheet={sheet}
      axis={levelAxis(shown.map((l) => Array.from(l.y).map((v) => Math.max(-30, v))))}
      unit="dB"
      layers={shown}
    />
  );
}

export const nominal: CrossoverLens = {
  id: 'nominal',
  title: 'Textbook',
  about: 'The same network on the loads that textbooks assume, and on the true drivers',
  Picture,
};
