'use client';

import { Button } from 'antd';
import { storageProblem } from '@/store/problems';
import type { Card } from '@/store/card';
import {
  copySheet,
  deleteForGood,
  deleteSheet,
  renameSheet,
  required,
  restoreSheet,
  storedDocument,
} from '@/store/sheets';
import { attemptStored, refuse, tell, unsay } from '../shell/tell';
import { damagedFile, sheetFile } from '../sheet/sheet-file';

export { openDamaged } from './open-damaged';

/*
 * What is done with a card. Each action says what became of it only once the store has answered.
 */

const named = (card: Card) => (card.title === '' ? 'The damaged sheet' : `“${card.title}”`);

export const rename = (card: Card, title: string): Promise<boolean> =>
  attemptStored(`${named(card)} was not renamed`, () => renameSheet(card.id, title));

export const duplicate = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not duplicated`, async () => {
    const copy = await copySheet(await required(card.id), ' (copy)');
    tell(`Duplicated as “${copy.title}”`);
  });

export const exportSheet = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not exported`, async () => sheetFile(await required(card.id)));

export const exportDamaged = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not exported`, async () => {
    damagedFile(card.title, card.id, await storedDocument(card.id));
  });

export const restore = (card: Card): Promise<boolean> =>
  attemptStored(`${named(card)} was not brought back`, async () => {
    await restoreSheet(card.id);
    tell(`${named(card)} is back`);
  });

/** Take a sheet off the shelf. Where there is no room even for the note that it is deleted, it can be removed for good. */
export async function remove(card: Card): Promise<void> {
  const key = `deleted-${card.id}`;
  try {
    await deleteSheet(card.id);
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
    await deleteForGood(card.id);
    tell(`${named(card)} is deleted for good`, { key: `deleted-${card.id}` });
  });
