'use client';

import { ReedError } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { editView } from '@/store/sheet-session';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import styles from './lens-panel.module.css';

/** The picture's ends, edited where they stand. */
export function PictureSpan({ view: { fromHz, toHz } }: { view: Sheet['view'] }) {
  const mark = usePreferences((p) => p.mark);
  const setSpan = (from: number, to: number) => {
    if (!(from > 0) || !(from * 2 <= to))
      throw new ReedError(
        'range',
        'The picture needs a span of at least one octave, from a lower to a higher frequency.',
      );
    editView({ fromHz: from, toHz: to });
  };
  return (
    <span className={`mono ${styles.span}`}>
      <EditableQuantity
        label="Picture from"
        value={fromHz}
        kind="hertz"
        mark={mark}
        shown={formatQuantity(fromHz, 'hertz', { unit: true, mark })}
        onCommit={(hz) => setSpan(hz!, toHz)}
      />
      {' to '}
      <EditableQuantity
        label="Picture to"
        value={toHz}
        kind="hertz"
        mark={mark}
        shown={formatQuantity(toHz, 'hertz', { unit: true, mark })}
        onCommit={(hz) => setSpan(fromHz, hz!)}
      />
    </span>
  );
}
