import { useMemo, useState } from 'react';
import { dipFor, hasAmplifiers, isActive } from '@/core/crossover/active';
import { humpsOf, type Hump } from '@/core/crossover/humps';
import type { CrossoverPicture } from '@/core/crossover/picture';
import type { TrapsPicture } from '@/core/crossover/traps';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import type { BandLayer, ChartLayer, LineLayer } from '@/ui/chart/layers';
import { setUi } from '../../sheet/ui-state';
import { useLens } from '../../sheet/use-lens';
import { attempt } from '../../shell/tell';
import { addActive } from '../actions';
import { HumpCard, type MarkedHump } from '../hump-card';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, meanInBand, OverBand, soundAxis, WAY_LOOKS } from './over-band';
import card from '../hump-card.module.css';

function Picture(props: CrossoverLensProps) {
  const { sheet, crossover, picture } = props;
  const [marked, setMarked] = useState<MarkedHump | null>(null);
  const { frequenciesHz, layers } = picture;
  const built = layers.find((l) => l.id === 'built');
  const humps = useMemo(
    () => (built ? humpsOf(frequenciesHz, built.sumDb, crossover) : []),
    [built, frequenciesHz, crossover],
  );
  const take = (hump: Hump) => {
    if (!built) return;
    const k = frequenciesHz.findIndex((f) => f >= hump.hz);
    const way = built.ways.reduce((a, b) => (b.levelDb[k] > a.levelDb[k] ? b : a)).id;
    // Ahead of an amplifier there is nothing to trap: a dip of op-amps takes it down at once.
    if (sheet.ways.some((w) => w.id === way && isActive(w)))
      attempt(() => setUi({ stageId: addActive(way, dipFor(hump)) }));
    else setMarked({ way, hump });
  };
  const markAt = (hz: number) => take(nearHump(humps, hz));
  return (
    <>
      {built && <Humps sheet={sheet} humps={humps.slice(0, SHOWN)} onTake={take} />}
      {marked ? (
        <WithTraps {...props} marked={marked} onChange={setMarked} onPin={markAt} />
      ) : (
        <Sum {...props} traps={[]} onPin={markAt} />
      )}
    </>
  );
}

/** So many humps are offered. */
const SHOWN = 4;
/** One that is pointed at from no further away is meant, octaves. */
const NEAR = 1 / 3;

/** The hump that is pointed at, or a usual one there. */
function nearHump(humps: readonly Hump[], hz: number): Hump {
  const apart = (h: Hump) => Math.abs(Math.log2(h.hz / hz));
  const near = humps.filter((h) => apart(h) < NEAR).sort((a, b) => apart(a) - apart(b));
  return near[0] ?? { hz: Number(hz.toPrecision(3)), db: 3, octaves: 1 };
}

/** The humps of the built sum, and how another is marked. */
function Humps({
  sheet,
  humps,
  onTake,
}: Pick<CrossoverLensProps, 'sheet'> & { humps: readonly Hump[]; onTake: (hump: Hump) => void }) {
  const mark = usePreferences((p) => p.mark);
  return (
    <p className={card.humps}>
      {hasAmplifiers(sheet) ? 'Humps, each taken down by a dip:' : 'Humps to trap:'}
      {humps.map((hump) => (
        <button key={hump.hz} type="button" className={card.hump} onClick={() => onTake(hump)}>
          {formatQuantity(hump.hz, 'hertz', { unit: true, mark, digits: 2 })} +
          {formatFixed(hump.db, 1, mark)} dB
        </button>
      ))}
      <span>{humps.length === 0 ? 'none stands out; a' : 'a'} double click marks one</span>
    </p>
  );
}

/** The picture with what both traps would make of the sum. */
function WithTraps({
  marked,
  onChange,
  onPin,
  ...props
}: CrossoverLensProps & {
  marked: MarkedHump;
  onChange: (marked: MarkedHump | null) => void;
  onPin: (hz: number) => void;
}) {
  const { picture, stale } = useLens(props.sheet, { lens: 'crossoverTraps', ...marked });
  const traps = useMemo(() => (picture ? trapLines(picture) : []), [picture]);
  return (
    <>
      <Sum {...props} traps={traps} onPin={onPin} />
      <HumpCard
        sheet={props.sheet}
        marked={marked}
        traps={picture}
        stale={stale}
        onChange={onChange}
      />
    </>
  );
}

const trapLines = ({ frequenciesHz, across, inLine }: TrapsPicture): LineLayer[] => [
  ...(across
    ? [line('across', 'with a trap across', 'trial-dashed', frequenciesHz, across.sumDb)]
    : []),
  ...(inLine
    ? [line('in-line', 'with a trap in line', 'trial-chained', frequenciesHz, inLine.sumDb)]
    : []),
];

function Sum({
  sheet,
  crossover,
  picture,
  traps,
  onPin,
}: CrossoverLensProps & { traps: readonly LineLayer[]; onPin: (hz: number) => void }) {
  const layers = useMemo(
    () => [...layersOf(sheet, crossover, picture), ...traps],
    [sheet, crossover, picture, traps],
  );
  return (
    <OverBand
      title="Level of the sum and its ways over frequency"
      sheet={sheet}
      axis={soundAxis(picture.layers.flatMap((l) => (l.id === 'nominal' ? [] : [l.sumDb])))}
      unit="dB"
      layers={layers}
      onPin={onPin}
    />
  );
}

function layersOf(
  sheet: Sheet,
  crossover: Crossover,
  { frequenciesHz: x, layers }: CrossoverPicture,
): ChartLayer[] {
  const built = layers.find((l) => l.id === 'built');
  const keeps = layers.flatMap((l) => {
    const keep = sheet.keeps.find((k) => l.id === `keep:${k.id}`);
    return keep ? [line(l.id, keep.name, 'keep', x, l.sumDb)] : [];
  });
  if (!built) return keeps;
  return [
    ...wantedAround(crossover, x, built.sumDb),
    line('turned', 'every second way turned over', 'turned', x, built.turnedDb),
    ...built.ways.map((way, i) => {
      const name = sheet.ways.find((w) => w.id === way.id)?.name ?? way.id;
      return line(way.id, name, WAY_LOOKS[i], x, way.levelDb);
    }),
    ...keeps,
    line('sum', 'sum, built', 'built', x, built.sumDb),
  ];
}

/** What the sum shall keep out of: more than the limits from its own mean over the band. */
function wantedAround(crossover: Crossover, x: Float64Array, sumDb: Float64Array): BandLayer[] {
  const { fromHz, toHz, withinDb } = crossover;
  const mean = meanInBand(x, sumDb, crossover);
  if (mean === undefined) return [];
  const band = {
    kind: 'band' as const,
    name: 'wanted',
    look: 'wanted' as const,
    x: [fromHz, toHz],
  };
  const [low, high] = [mean - withinDb, mean + withinDb];
  return [
    { ...band, id: 'wanted above', low: [high, high], high: [Infinity, Infinity] },
    { ...band, id: 'wanted below', low: [low - 12, low - 12], high: [low, low] },
  ];
}

export const sum: CrossoverLens = {
  id: 'sum',
  title: 'Sum',
  about: 'What the listener gets on axis, and each way of it',
  Picture,
};
