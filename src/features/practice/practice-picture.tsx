import { placeWords } from '@/core/bench/place-words';
import { useMemo } from 'react';
import type { Comparison } from '@/core/bench/compare';
import type { PracticeBoard } from '@/core/practice/deal';
import { soundLevels, type Found } from '@/core/practice/measure';
import type { Asked } from '@/core/practice/record';
import { levelAxis } from '@/ui/chart/axis';
import { KeyedChart } from '@/ui/chart/keyed-chart';
import type { ChartLayer } from '@/ui/chart/layers';

interface PictureProps {
  board: PracticeBoard;
  /** Where the levels are of. */
  net: string;
  asked: readonly Asked[];
  found: readonly Found[];
  meeting: Comparison['meeting'];
}

/** What a sound board gives at a net, and every level that was measured there. */
export function PracticePicture({ board, net, asked, found, meeting }: PictureProps) {
  const { fromHz, toHz } = board.sheet.view;
  const sound = useMemo(() => soundLevels(board, net), [board, net]);
  const points = useMemo(() => levelsAt(net, asked, found), [net, asked, found]);
  const layers = useMemo<ChartLayer[]>(
    () => [
      { kind: 'line', id: 'sound', name: 'a sound board', look: 'built', ...sound },
      { kind: 'dots', id: 'measured', name: 'measured', look: 'take', ...points },
    ],
    [sound, points],
  );
  const axis = useMemo(() => levelAxis([sound.y, points.y]), [sound, points]);
  return (
    <KeyedChart
      title="Level over frequency of a sound board and of this one"
      fromHz={fromHz}
      toHz={toHz}
      axis={axis}
      layers={layers}
      size="large"
    >
      <span>{placeWords(net, meeting)}</span>
    </KeyedChart>
  );
}

/** All levels that were measured at a net, by rising frequency. */
function levelsAt(net: string, asked: readonly Asked[], found: readonly Found[]) {
  const points = found.flatMap((one, turn): [number, number][] => {
    const by = asked[turn];
    if (one.is === 'sweep' && by.is === 'sweep' && by.net === net)
      return one.curve.frequenciesHz.map((hz, k) => [hz, one.curve.levelDb[k]]);
    if (one.is === 'level' && by.is === 'level' && by.net === net) return [[by.hz, one.db]];
    return [];
  });
  points.sort(([a], [b]) => a - b);
  return {
    x: Float64Array.from(points, ([hz]) => hz),
    y: Float64Array.from(points, ([, db]) => db),
  };
}
