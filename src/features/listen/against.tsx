'use client';

import { useEffect, useState } from 'react';
import { ReedError } from '@/core/errors';
import type { Cell } from '@/core/cells/cell';
import type { Sheet } from '@/core/sheet/schema';
import { voiceSheet } from '@/core/sheet/voice';
import { ChoiceWord } from '../sheet/choice-word';
import { refuse } from '../shell/tell';
import { setListening, useListening, type Against } from './listening';
import { isSum } from '@/core/listen/is-sum';
import { hearNoSheet, hearSheet, useSounding } from './sounding';

const NOTHING = 'nothing';
const keyOf = (against: Against | null): string =>
  against ? `${against.is} ${against.id}` : NOTHING;

/** Cells that a filter can be compared with, fetched when the dock is open. */
function useCells(): readonly Cell[] {
  const [cells, setCells] = useState<readonly Cell[]>([]);
  useEffect(() => {
    let wanted = true;
    void import('@/core/cells').then(({ CELLS }) => {
      if (wanted) setCells(CELLS);
    });
    return () => {
      wanted = false;
    };
  }, []);
  return cells;
}

/** What the sheet is heard against. */
export function AgainstChoice({ sheet }: { sheet: Sheet }) {
  const against = useListening((s) => s.against);
  const cells = useCells();
  const choices = [
    { value: NOTHING, word: 'nothing' },
    ...sheet.keeps.map((k) => ({ value: `keep ${k.id}`, word: `keep “${k.name}”` })),
    // A cell beside the sum of many ways is no comparison.
    ...(isSum(sheet) ? [] : cells).map((c) => ({
      value: `cell ${c.id}`,
      word: c.name.toLowerCase(),
    })),
  ];
  return (
    <div>
      {'against '}
      <ChoiceWord
        label="Against"
        value={keyOf(against)}
        choices={choices}
        onChoose={(value) => {
          const [is, id] = [
            value.slice(0, value.indexOf(' ')),
            value.slice(value.indexOf(' ') + 1),
          ];
          setListening(
            value === NOTHING
              ? { against: null, side: 'a' }
              : { against: { is: is as Against['is'], id } },
          );
        }}
      />
    </div>
  );
}

/** The other of two goes to where it sounds. */
export function useAgainst(sheet: Sheet, way: number): void {
  const against = useListening((s) => s.against);
  const on = useSounding((s) => s.on);
  const cells = useCells();
  const { keeps, source } = sheet;
  useEffect(() => {
    if (!against) {
      hearNoSheet('b');
      return;
    }
    if (against.is === 'keep') {
      const keep = keeps.find((k) => k.id === against.id);
      if (keep) hearSheet('b', keep.design, Math.min(way, keep.design.ways.length - 1));
      else setListening({ against: null, side: 'a' });
      return;
    }
    const cell = cells.find((c) => c.id === against.id);
    if (!cell) return;
    try {
      const other = voiceSheet({
        id: 'against',
        title: cell.name,
        at: new Date(0).toISOString(),
        cell,
        ...cell.usual,
        source,
        load: { name: 'Load', ohms: null },
      });
      hearSheet('b', other, 0);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      refuse(error.message);
    }
  }, [against, keeps, source, way, cells, on]);
}
