'use client';

import { attemptStored, tell } from '../shell/tell';

/** Longest list of what was left out that a message shows. */
const LISTED = 6;

/** Open what can be read of a damaged sheet as a sheet of its own, and say what was left out. */
export async function openDamaged(id: string, open: (copy: string) => void): Promise<void> {
  await attemptStored('Nothing was opened', async () => {
    const { openReadable } = await import('@/store/sheets');
    const { sheet, leftOut } = await openReadable(id);
    open(sheet.id);
    const more = leftOut.length - LISTED;
    tell(
      <>
        Opened as “{sheet.title}”.{' '}
        {leftOut.length === 0 ? 'Nothing had to be left out.' : 'Left out:'}
        <ul style={{ margin: '4px 0 0', paddingLeft: 20, textAlign: 'left' }}>
          {leftOut.slice(0, LISTED).map((line) => (
            <li key={line}>{line}</li>
          ))}
          {more > 0 && <li>and {more} more</li>}
        </ul>
      </>,
      { seconds: 20 },
    );
  });
}
