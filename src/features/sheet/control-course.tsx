import type { ControlPicture, ControlRow } from '@/core/lenses/control';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Control } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import type { ChartLayer, LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { givenAt, printGiven } from './control-words';

export type CourseName = 'away' | 'cut-off' | 'q' | 'level';

/** What can be drawn over a control. */
export const COURSES: readonly { id: CourseName; title: string }[] = [
  { id: 'away', title: 'Away from its law' },
  { id: 'cut-off', title: 'Cut-off' },
  { id: 'q', title: 'Q' },
  { id: 'level', title: 'Level' },
];

/** A Q above this goes out of the picture: it is about to sing, or does. */
const MOST_Q = 50;

/** Of a figure over the travel: values, and how one of them is printed. */
interface Course {
  title: string;
  values: (row: ControlRow, k: number) => number;
  print: (value: number) => string;
}

/** One figure of a filter over its control. */
export function ControlCourse({
  control,
  picture,
  course: name,
}: {
  control: Control;
  picture: ControlPicture;
  course: CourseName;
}) {
  const mark = usePreferences((p) => p.mark);
  const fixed = (value: number, digits: number) => formatFixed(value, digits, mark);
  const hz = (value: number) => formatQuantity(value, 'hertz', { digits: 3, unit: true, mark });
  const { rows, cents, drift, law } = picture;
  const courses: Record<CourseName, Course> = {
    away: {
      title:
        law?.is === 'octaves'
          ? `Away from ${perOctave(law.perVolt, (v) => fixed(v, 2))}, cents; band: 10 °C to 40 °C`
          : 'Away from proportion, cents; band: 10 °C to 40 °C',
      values: (_, k) => cents?.[k] ?? NaN,
      print: (v) => fixed(v, 0),
    },
    'cut-off': {
      title: 'Cut-off',
      values: ({ hz: at }) => Math.log10(at ?? NaN),
      print: (v) => hz(10 ** v),
    },
    q: {
      title: 'Q of its sharpest pair of poles',
      values: ({ figures: { q } }) => (q === null || q < 0 || q > MOST_Q ? NaN : q),
      print: (v) => fixed(v, 1),
    },
    level: {
      title: 'Level: where it passes, and its peak (dashed)',
      values: ({ figures }) => figures.plateauDb,
      print: (v) => `${fixed(v, 0)} dB`,
    },
  };
  const { title, values, print } = courses[name];
  const x = rows.map(({ at }) => givenAt(control, at));
  const line = (id: string, look: LineLayer['look'], y: readonly number[]): LineLayer => ({
    kind: 'line',
    id,
    name: id,
    look,
    x,
    y,
  });
  const layers: ChartLayer[] = [];
  if (name === 'away' && drift.length === 2) {
    const [cold, warm] = drift;
    layers.push({
      kind: 'band',
      id: 'rooms',
      name: 'cold and warm',
      look: 'spread',
      x,
      low: cold.cents.map((c, k) => Math.min(c, warm.cents[k])),
      high: cold.cents.map((c, k) => Math.max(c, warm.cents[k])),
    });
  }
  if (name === 'level')
    layers.push(
      line(
        'peak',
        'ideal',
        rows.map((r) => r.figures.peakDb),
      ),
    );
  const course = rows.map(values);
  layers.push(line('course', 'built', course));
  const all = layers.flatMap((l) =>
    l.kind === 'band'
      ? [...Array.from(l.low), ...Array.from(l.high)]
      : l.kind === 'line'
        ? Array.from(l.y)
        : [],
  );
  const stands = givenAt(control, control.at);
  return (
    <MiniPlot
      title={title}
      summary={[0, (course.length - 1) / 2, course.length - 1]
        .map((k) => `${printGiven(control, x[k], mark)} ${print(course[k])}`)
        .join(', ')}
      layers={layers}
      // A little beyond its end: the last figure has room beneath.
      x={[x[0], x[x.length - 1] + 0.03 * (x[x.length - 1] - x[0])]}
      y={rangeOf(all)}
      xLabel={(v) => printGiven(control, v, mark)}
      yLabel={print}
    >
      {({ x: along }, box) => (
        <line
          x1={along(stands)}
          x2={along(stands)}
          y1={box.y}
          y2={box.y + box.height}
          stroke="currentColor"
          strokeDasharray="2 3"
        />
      )}
    </MiniPlot>
  );
}

/** “1 V an octave”, “0.5 V an octave”. */
const perOctave = (perVolt: number, print: (v: number) => string): string =>
  `${Math.abs(1 / perVolt - 1) < 1e-6 ? '1' : print(1 / perVolt)} V an octave`;

function rangeOf(values: readonly number[]): [number, number] {
  const known = values.filter(Number.isFinite);
  if (known.length === 0) return [-1, 1];
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const room = Math.max((high - low) * 0.08, Math.abs(high) * 1e-3, 1e-3);
  return [low - room, high + room];
}
