'use client';

import { Dropdown } from 'antd';
import { useEffect, useRef } from 'react';
import type { Card } from '@/store/card';
import { duplicate, exportSheet, remove } from './card-actions';
import { MoreButton } from './more-button';

interface CardMenuProps {
  card: Card;
  title: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onRename: () => void;
}

/** What can be done with a sheet from the shelf. */
export function CardMenu({ card, title, open, onOpenChange, onRename }: CardMenuProps) {
  const button = useRef<HTMLButtonElement>(null);
  // The button that was pressed has given way to this one.
  useEffect(() => button.current?.focus(), []);
  return (
    <Dropdown
      trigger={['click']}
      open={open}
      onOpenChange={onOpenChange}
      menu={{
        items: [
          { key: 'rename', label: 'Rename' },
          { key: 'duplicate', label: 'Duplicate' },
          { key: 'export', label: 'Export sheet file' },
          { type: 'divider' },
          { key: 'delete', label: 'Delete' },
        ],
        onClick: ({ key }) => {
          onOpenChange(false);
          if (key === 'rename') onRename();
          if (key === 'duplicate') void duplicate(card);
          if (key === 'export') void exportSheet(card);
          if (key === 'delete') void remove(card);
        },
      }}
    >
      <MoreButton ref={button} title={title} />
    </Dropdown>
  );
}
