'use client';

import { useMemo } from 'react';
import { hasAmplifiers } from '@/core/crossover/active';
import { isCrossover } from '@/core/crossover/crossover-design';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { ListeningDock } from '../listen/listening-dock';
import { Controls } from '../sheet/controls';
import { Notices } from '../sheet/notices';
import { SheetHeader } from '../sheet/sheet-header';
import { useUi } from '../sheet/ui-state';
import { useSteady } from '../sheet/use-alike';
import { useCrossoverCommands } from './commands';
import { CrossoverSentence } from './crossover-sentence';
import { useCrossover, useFollowCrossover } from './follow';
import { CrossoverLenses } from './lens-panel';
import { NetworkPanel } from './network-panel';
import { CrossoverReadings } from './readings';
import { TuneButton } from './tune-form';
import { WaysStrip } from './ways-strip';
import frame from '../sheet/sheet-screen.module.css';
import styles from './crossover-screen.module.css';

/** A crossover as a worksheet: its sentence, a row for each way, the network, a picture, readings. */
export function CrossoverScreen({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  useFollowCrossover(sheet);
  useCrossoverCommands(sheet.ways);
  const problem = useCrossover((s) => s.problem);
  const stale = useCrossover((s) => s.stale);
  const chosen = useUi((s) => s.stageId);
  const solved = useMemo(() => (isCrossover(sheet) ? sheet : null), [sheet]);
  const names = useSteady(sheet.ways.map((w) => w.name));
  const amplifiers = hasAmplifiers(sheet) ? 'each' : 'one';
  // The same element as long as it says the same: an edit of a value leaves the head alone.
  const sentence = useMemo(
    () => <CrossoverSentence crossover={crossover} amplifiers={amplifiers} names={names} />,
    [crossover, amplifiers, names],
  );
  if (!solved) return null;
  return (
    <div className={styles.crossover} data-stale={stale || undefined} aria-busy={stale}>
      <div className={frame.head}>
        <SheetHeader
          title={sheet.title}
          ask={null}
          sentence={sentence}
          actions={TUNE}
          byHand={false}
          made=""
          keeps={sheet.keeps}
        />
      </div>
      <div>
        <Notices problem={problem} />
        <Controls sheet={sheet} />
        <WaysStrip sheet={sheet} crossover={crossover} selected={chosen} />
      </div>
      <div className={styles.middle}>
        <NetworkPanel sheet={sheet} />
        <CrossoverLenses sheet={sheet} crossover={crossover} />
      </div>
      <CrossoverReadings sheet={sheet} crossover={crossover} />
      <ListeningDock sheet={sheet} />
    </div>
  );
}

const TUNE = <TuneButton />;
