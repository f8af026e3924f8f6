import { Button, Popover } from 'antd';
import { lazy, Suspense, useState } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { Coming } from '../shell/coming';

const TuneForm = lazy(() => import('./tune-window').then((m) => ({ default: m.TuneForm })));

/** Values and polarity by search, on the true drivers. */
export function TuneButton({ sheet }: { sheet: Sheet }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={setOpen}
      content={
        <Suspense fallback={<Coming />}>
          <TuneForm sheet={sheet} />
        </Suspense>
      }
    >
      <Button>Tune</Button>
    </Popover>
  );
}
