'use client';

import { Button, Popover } from 'antd';
import type { Sheet } from '@/core/sheet/schema';
import { Keeps } from './keeps';
import { setUi, useUi } from './ui-state';

/** Snapshots: take one, lay it over the picture, go back to it. */
export function KeepsButton({ keeps }: Pick<Sheet, 'keeps'>) {
  const open = useUi((s) => s.keeping);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={(keeping) => setUi({ keeping })}
      destroyOnHidden
      content={<Keeps keeps={keeps} />}
    >
      <Button type="primary">Keep{keeps.length > 0 ? ` · ${keeps.length}` : ''}</Button>
    </Popover>
  );
}
