'use client';

import { useMemo } from 'react';
import { formatFixed } from '@/core/quantity/format';
import type { Joint } from '@/core/sheet/joints';
import { remediesFor } from '@/core/sheet/remedies';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { useSolvedSheet } from '@/store/open-library';
import { attempt, tell } from '../shell/tell';
import { applyRemedy } from './actions/joints';
import styles from './joint-remedies.module.css';

/** What can be done about a joint, each with what the whole path would lose then; one click does it. */
export function JointRemedies({
  sheet: open,
  joint,
  onDone,
}: {
  sheet: Sheet;
  joint: Joint;
  onDone?: () => void;
}) {
  const mark = usePreferences((p) => p.mark);
  const sheet = useSolvedSheet(open);
  const { fromHz } = sheet.view;
  const offered = useMemo(() => remediesFor(sheet, joint, fromHz), [sheet, joint, fromHz]);
  if (offered.length === 0) return null;
  return (
    <div className={styles.remedies}>
      <p className={styles.head}>
        The joints of the path lose {formatFixed(offered[0].lostDb, 2, mark)} dB in all. What would
        help:
      </p>
      <ul>
        {offered.map((remedy) => (
          <li key={remedy.id}>
            <button
              type="button"
              onClick={() => {
                if (!attempt(() => applyRemedy(remedy))) return;
                tell(`${remedy.words}: done. Undo takes it back.`);
                onDone?.();
              }}
            >
              {remedy.words}
            </button>
            <span className="mono">{formatFixed(remedy.lossDb, 2, mark)} dB</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
