'use client';

import { Button } from 'antd';
import { storageProblem } from '@/store/problems';
import type { Card } from '@/store/card';
import { attemptStored, refuse, tell, unsay } from '../shell/tell';

/*
 * What is done with a card. Each action says what became of it only once the store has answered. What
 * reads and stores sheets is fetched within the attempt, so that it is said where it cannot be had.
 */

const store = () => import('@/store/sheets');
const files = () => import('../sheet/sheet-file');

const named = (card: Card) => (card.title === '' ? 'The damaged sheet' : `“${card.title}”`);

export const rename = (card: Card, title: string): Promise<boolean> =>
  attemptStored(`${named(card)} was not renamed`, async () =>
    (await store()).renameSheet(card.id, title),
  );

export const duplicate = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not duplicated`, async () => {
    const { copySheet, required } = await store();
    const copy = await copySheet(await required(card.id), ' (copy)');
    tell(`Duplicated as “${copy.title}”`);
  });

export const exportSheet = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not exported`, async () => {
    const { required } = await store();
    const { sheetFile } = await files();
    await sheetFile(await required(card.id));
  });

export const exportDamaged = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not exported`, async () => {
    const { storedDocument } = await store();
    const { damagedFile } = await files();
    damagedFile(card.title, card.id, await storedDocument(card.id));
  });

export const restore = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not brought back`, async () => {
    await (await store()).restoreSheet(card.id);
    tell(`${named(card)} is back`);
  });

/** Take a sheet off the shelf. Where there is no room even for the note that it is deleted, it can be removed for good. */
export async function remove(card: Card): Promise<void> {
  const key = `deleted-${card.id}`;
  try {
    await (await store()).deleteSheet(card.id);
  } catch (error) {
    refuse(
      <span>
        {named(card)} was not deleted: {storageProblem(error)}.{' '}
        <Button size="small" type="link" onClick={() => void removeForGood(card)}>
          Delete it for good
        </Button>
      </span>,
      key,
    );
    return;
  }
  tell(
    <span>
      Deleted {named(card)}{' '}
      <Button
        size="small"
        type="link"
        onClick={() => {
          unsay(key);
          void restore(card);
        }}
      >
        Undo
      </Button>
    </span>,
    { key, seconds: 10 },
  );
}

export const removeForGood = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not deleted`, async () => {
    await (await store()).deleteForGood(card.id);
    tell(`${named(card)} is deleted for good`, { key: `deleted-${card.id}` });
  });
