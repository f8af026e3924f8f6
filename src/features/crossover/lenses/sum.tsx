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
  const [marked, setMarked] = useState<MarkedHump | null>(null);
  return (
    <>
      <Humps {...props} onMark={setMarked} />
      {marked ? (
        <WithTraps {...props} marked={marked} onChange={setMarked} />
      ) : (
        <Sum {...props} traps={[]} />
      )}
    </>
  );
}

/** The humps of the built sum, each with the way that is loudest there. */
function Humps({
  sheet,
  crossover,
  picture,
  onMark,
}: CrossoverLensProps & { onMark: (marked: MarkedHump) => void }) {
  const mark = usePreferences((p) => p.mark);
  const { frequenciesHz, layers } = picture;
  const built = layers.find((l) => l.id === 'built');
  const humps = useMemo(
    () => (built ? humpsOf(frequenciesHz, built.sumDb, crossover).slice(0, 4) : []),
    [built, frequenciesHz, crossover],
  );
  if (!built || humps.length === 0) return null;
  const loudest = (hz: number) => {
    const k = frequenciesHz.findIndex((f) => f >= hz);
    return built.ways.reduce((a, b) => (b.levelDb[k] > a.levelDb[k] ? b : a)).id;
  };
  // Ahead of an amplifier there is nothing to trap: a dip of op-amps takes it down at once.
  const take = (hump: Hump) => {
    const way = loudest(hump.hz);
    const active = sheet.ways.some((w) => w.id === way && isActive(w));
    if (active) attempt(() => setUi({ stageId: addActive(way, dipFor(hump)) }));
    else onMark({ way, hump });
  };
  const own = hasAmplifiers(sheet);
  return (
    <p className={card.humps}>
      {own ? 'Humps, each taken down by a dip:' : 'Humps to trap:'}
      {humps.map((hump) => (
        <button key={hump.hz} type="button" className={card.hump} onClick={() => take(hump)}>
          {formatQuantity(hump.hz, 'hertz', { unit: true, mark, digits: 2 })} +
          {formatFixed(hump.db, 1, mark)} dB
        </button>
      ))}
    </p>
  );
}

/** The picture with what both traps would make of the sum. */
function WithTraps({
  marked,
  onChange,
  ...props
}: CrossoverLensProps & { marked: MarkedHump; onChange: (marked: MarkedHump | null) => void }) {
  const { picture, stale } = useLens(props.sheet, { lens: 'crossoverTraps', ...marked });
  const traps = useMemo(() => (picture ? trapLines(picture) : []), [picture]);
  return (
    <>
      <Sum {...props} traps={traps} />
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
}: CrossoverLensProps & { traps: readonly LineLayer[] }) {
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
