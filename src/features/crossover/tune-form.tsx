import { Button, Popover } from 'antd';
import { lazy, memo, Suspense, useState } from 'react';
import { useSheet } from '@/store/sheet-session';
import { Coming } from '../shell/coming';

const TuneForm = lazy(() => import('./tune-window').then((m) => ({ default: m.TuneForm })));

/** Values and polarity by search, on the true drivers. */
export const TuneButton = memo(function TuneButton() {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={setOpen}
      content={
        <Suspense fallback={<Coming />}>
          <OfOpenSheet />
        </Suspense>
      }
    >
      <Button>Tune</Button>
    </Popover>
  );
});

/** The form follows the sheet by itself, so that no edit draws its button anew. */
function OfOpenSheet() {
  const sheet = useSheet();
  return sheet && <TuneForm sheet={sheet} />;
}
