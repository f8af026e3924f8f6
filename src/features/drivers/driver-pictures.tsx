import { useMemo } from 'react';
import { messageOf } from '@/core/errors';
import type { DriverEntry } from '@/core/library/driver';
import { unitFault } from '@/core/speaker/document';
import { evenly } from '@/core/speaker/tune/measure';
import { impedanceAt, prepareUnit, pressureAt } from '@/core/speaker/unit';
import { levelAxis, niceTicks } from '@/ui/chart/axis';
import type { LineLayer } from '@/ui/chart/layers';
import { LensChart } from '@/ui/chart/lens-chart';
import styles from './drivers.module.css';

const [FROM, TO] = [20, 20_000];
const POINTS = 301;

/** How loud a unit is on axis, and what its amplifier sees: as it is used in a crossover. */
export function DriverPictures({ model }: { model: DriverEntry['model'] }) {
  const found = useMemo(() => curvesOf(model), [model]);
  if ('problem' in found)
    return (
      <p className={styles.quiet} role="status">
        {found.problem}
      </p>
    );
  const top = Math.max(12, ...Array.from(found.ohms.y)) * 1.05;
  return (
    <div className={styles.pictures}>
      <h2>Level for 2.83 V at one metre, half space</h2>
      <div className={styles.picture}>
        <LensChart
          title="Level on axis over frequency"
          fromHz={FROM}
          toHz={TO}
          axis={levelAxis([found.level.y])}
          unit="dB"
          layers={[found.level]}
        />
      </div>
      <h2>Impedance{found.fitted}</h2>
      <div className={styles.picture}>
        <LensChart
          title="Impedance over frequency"
          fromHz={FROM}
          toHz={TO}
          axis={{ domain: [0, top], ticks: niceTicks(0, top, 5) }}
          unit="Ω"
          layers={[found.ohms]}
        />
      </div>
    </div>
  );
}

function curvesOf(model: DriverEntry['model']) {
  const fault = unitFault(model);
  if (fault) return { problem: `Nothing is drawn yet: ${fault.path.slice(1)} ${fault.message}.` };
  try {
    const x = evenly(FROM, TO, POINTS);
    const unit = prepareUnit({
      ...model,
      id: 'shown',
      name: '',
      place: { xMetres: 0, yMetres: 0, zMetres: 0 },
    });
    const size = (z: { re: number; im: number }) => Math.hypot(z.re, z.im);
    const line = (id: string, y: Float64Array): LineLayer => ({
      kind: 'line',
      id,
      name: id,
      look: 'built',
      x,
      y,
    });
    const worst = unit.impedance?.equivalent.worst;
    return {
      level: line(
        'level',
        x.map((hz) => 20 * Math.log10((size(pressureAt(unit, hz)) * 2.83) / 20e-6)),
      ),
      ohms: line(
        'impedance',
        x.map((hz) => size(impedanceAt(unit, hz))),
      ),
      fitted:
        worst === undefined
          ? ''
          : `, as measured; its circuit is within ${(100 * worst).toFixed(1)} %`,
    };
  } catch (error) {
    return { problem: messageOf(error) };
  }
}
