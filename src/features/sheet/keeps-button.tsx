'use client';

import { Button, Popover, type InputRef } from 'antd';
import { useRef } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { Keeps } from './keeps';
import { setUi, useUi } from './ui-state';

/** Snapshots: take one, lay it over the picture, go back to it. */
export function KeepsButton({ keeps }: Pick<Sheet, 'keeps'>) {
  const open = useUi((s) => s.keeping);
  const field = useRef<InputRef>(null);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={(keeping) => setUi({ keeping })}
      // Opened again before it was gone, it is the same form, and takes the focus once more.
      afterOpenChange={(is) => is && field.current?.focus()}
      destroyOnHidden
      content={<Keeps keeps={keeps} field={field} />}
    >
      <Button type="primary">Keep{keeps.length > 0 ? ` · ${keeps.length}` : ''}</Button>
    </Popover>
  );
}
