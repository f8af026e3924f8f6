import { Button, Input } from 'antd';
import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { TravelPicture } from '@/core/lenses/travel';
import { formatQuantity } from '@/core/quantity/format';
import { LONGEST_QUANTITY, parseQuantity } from '@/core/quantity/parse';
import { quantityOfMeasure } from '@/core/response/readings';
import type { Control, Reading, Sheet } from '@/core/sheet/schema';
import { printMeasured } from '@/core/sheet/words';
import { solvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { engine } from '@/workers/engine';
import { tell } from '../shell/tell';
import { stretchKnob } from './actions/controls';
import styles from './real-lenses.module.css';

interface KnobReachProps {
  sheet: Sheet;
  control: Control;
  picture: TravelPicture;
  reading: Reading;
}

/** How far a knob reaches against what is wanted of it, and the parts with which it would. */
export function KnobReach({ sheet, control, picture, reading }: KnobReachProps) {
  const mark = usePreferences((p) => p.mark);
  const kind = quantityOfMeasure(reading.measure);
  const own = control.reach?.reading === reading.id ? control.reach : undefined;
  const typed = (x: number | undefined) =>
    x === undefined ? '' : formatQuantity(x, kind, { digits: 5, mark }).replace('−', '-');
  const [text, setText] = useState<{ of: string; from: string; to: string } | null>(null);
  const shown =
    text?.of === reading.id ? text : { of: reading.id, from: typed(own?.from), to: typed(own?.to) };
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const print = (x: number) => printMeasured(reading.measure, x, mark);
  const values = picture.rows.map((r) => r.readings[reading.id]).filter((v) => !Number.isNaN(v));
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const stretch = async () => {
    setProblem(null);
    setAsking(true);
    try {
      const [from, to] = [shown.from, shown.to].map((t) => parseQuantity(t, kind, mark));
      const reach = { reading: reading.id, from, to };
      const input = { sheet: solvedSheet(sheet), control: control.id, reach };
      const found = await engine().run('stretch', input);
      stretchKnob(sheet, control.id, reach, found);
      setText(null);
      const ohms = (x: number) => formatQuantity(x, 'ohms', { digits: 3, unit: true, mark });
      tell(
        `${control.name}: a track of ${ohms(found.trackOhms)}, ${ohms(found.seriesOhms)} in line with it`,
      );
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setProblem(messageOf(error));
    } finally {
      setAsking(false);
    }
  };
  const field = (label: string, end: 'from' | 'to') => (
    <Input
      className={`mono ${styles.end}`}
      size="small"
      aria-label={label}
      value={shown[end]}
      maxLength={LONGEST_QUANTITY}
      onChange={(e) => setText({ ...shown, [end]: e.target.value })}
    />
  );
  return (
    <form
      className={styles.reach}
      aria-label="Reach of the knob"
      onSubmit={(e) => {
        e.preventDefault();
        void stretch();
      }}
    >
      <span>
        {values.length === 0
          ? 'It has no value over the travel.'
          : `It reaches ${print(least)} to ${print(most)}${own ? reachWords(own, least, most) : ''}.`}
      </span>
      <span>
        Wanted from {field('Wanted where the travel begins', 'from')} to{' '}
        {field('Wanted where it ends', 'to')}{' '}
        <Button size="small" htmlType="submit" loading={asking}>
          Stretch it over that
        </Button>
      </span>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
    </form>
  );
}

/** What is lacking at either end of what is wanted. */
function reachWords({ from, to }: { from: number; to: number }, least: number, most: number) {
  const [low, high] = [Math.min(from, to), Math.max(from, to)];
  if (least <= low && most >= high) return ', which covers what is wanted';
  if (least > low && most < high) return ': it falls short at both ends';
  return least > low ? ': it does not go low enough' : ': it does not go high enough';
}
