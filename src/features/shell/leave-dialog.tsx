'use client';

import { Button, Modal } from 'antd';
import { sheetOf, useSession } from '@/store/sheet-session';
import { sheetFile } from '../sheet/sheet-file';

/** Asked before a screen with edits that are not stored is left. */
export function LeaveDialog({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  const sheet = sheetOf(useSession.getState());
  return (
    <Modal
      open
      onCancel={onStay}
      title="The last edits are not stored yet"
      width={480}
      footer={
        <>
          {sheet && <Button onClick={() => void sheetFile(sheet)}>Export the sheet</Button>}
          <Button onClick={onLeave}>Leave all the same</Button>
          <Button type="primary" onClick={onStay}>
            Stay here
          </Button>
        </>
      }
    >
      <p>
        The browser has refused to store them. They are kept in this tab, and storing is tried again
        until it succeeds; but they are lost if the tab is closed before.
      </p>
    </Modal>
  );
}
