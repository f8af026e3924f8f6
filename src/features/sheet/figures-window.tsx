import { Button, Modal } from 'antd';
import { useState } from 'react';
import type { NamedModel, PartKind } from '@/core/parts/part-kind';
import { DeviceFields } from '../devices/device-fields';

interface FiguresWindowProps {
  kind: PartKind;
  /** What stands there now. */
  device: NamedModel;
  title: string;
  onKeep: (device: NamedModel) => void;
  onClose: () => void;
}

/** The figures of a device of the sheet; nothing is changed before they are kept, and then at once. */
export function FiguresWindow({ kind, device, title, onKeep, onClose }: FiguresWindowProps) {
  const [draft, setDraft] = useState<NamedModel>(() => structuredClone(device));
  const name = draft.name.trim();
  return (
    <Modal
      open
      width={620}
      title={title}
      onCancel={onClose}
      footer={
        <Button
          type="primary"
          disabled={name === ''}
          onClick={() => {
            onKeep({ ...draft, name });
            onClose();
          }}
        >
          Keep
        </Button>
      }
    >
      <DeviceFields kind={kind} device={draft} onChange={setDraft} />
    </Modal>
  );
}
