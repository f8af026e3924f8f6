'use client';

import { Button, Popover } from 'antd';
import { lazy, Suspense } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { Coming } from '../shell/coming';
import { setUi, useUi } from './ui-state';

const Keeps = lazy(() => import('./keeps').then((m) => ({ default: m.Keeps })));

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
      content={
        <Suspense fallback={<Coming />}>
          <Keeps keeps={keeps} />
        </Suspense>
      }
    >
      <Button type="primary">Keep{keeps.length > 0 ? ` · ${keeps.length}` : ''}</Button>
    </Popover>
  );
}
