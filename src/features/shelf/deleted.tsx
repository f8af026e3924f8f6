'use client';

import { Button, Collapse } from 'antd';
import type { Card } from '@/store/card';
import { DELETED_DAYS } from '@/store/sheets';
import { dateWords } from '@/ui/controls/date-words';
import { removeForGood, restore } from './card-actions';
import styles from './shelf-screen.module.css';

/** Sheets deleted within the last week, each to be brought back or removed for good. */
export function Deleted({ cards }: { cards: readonly Card[] }) {
  return (
    <Collapse
      ghost
      className={styles.deleted}
      items={[
        {
          key: 'deleted',
          label: `Recently deleted (${cards.length})`,
          children: (
            <>
              <p className={styles.empty}>Kept for {DELETED_DAYS} days, then cleared away.</p>
              <ul className={styles.deletedList} aria-label="Recently deleted">
                {cards.map((card) => {
                  const name = card.title || `Sheet without a name (${card.id.slice(0, 20)})`;
                  return (
                    <li key={card.id}>
                      <span className={styles.deletedName}>{name}</span>
                      <span className={styles.empty}>
                        deleted {dateWords(card.deletedAt!, 'medium')}
                      </span>
                      <Button
                        size="small"
                        aria-label={`Bring back ${name}`}
                        onClick={() => void restore(card)}
                      >
                        Bring back
                      </Button>
                      <Button
                        size="small"
                        type="text"
                        aria-label={`Delete ${name} for good`}
                        onClick={() => void removeForGood(card)}
                      >
                        Delete for good
                      </Button>
                    </li>
                  );
                })}
              </ul>
            </>
          ),
        },
      ]}
    />
  );
}
