'use client';

import { Fragment, useEffect } from 'react';
import type { Rest } from '@/core/lenses/rest';
import { layerName } from '@/core/sheet/layer-name';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import type { DecimalMark } from '@/core/quantity/parse';
import { LensState } from './lens-state';
import { setUi } from './ui-state';
import { useLens } from './use-lens';
import styles from './rest-lens.module.css';

/** Where every device stands without a signal: volts at its pins, the current it carries, its heat. */
export function RestLens({ sheet }: { sheet: Sheet }) {
  const { picture, problem, stale } = useLens(sheet, { lens: 'rest' });
  const mark = usePreferences((p) => p.mark);
  const layers = picture?.layers.filter((l) => l.id !== 'ideal') ?? [];
  // What stands at the outputs stands on the drawing too, as long as it is looked at.
  const built = stale ? undefined : picture?.layers.find((l) => l.id === 'built')?.value;
  useEffect(() => {
    setUi({ atRest: built ? outputsAtRest(built, mark) : {} });
    return () => setUi({ atRest: {} });
  }, [built, mark]);
  return (
    <LensState problem={problem ?? picture?.problems[0] ?? null} stale={stale}>
      <div className={styles.lens} data-picture>
        {layers.map(({ id, value }) => (
          <Table key={id} name={layerName(id, sheet)} rest={value} />
        ))}
        {picture && layers.every((l) => l.value.devices.length === 0) && (
          <p>Nothing here has a rest of its own: the circuit is of passive parts alone.</p>
        )}
      </div>
    </LensState>
  );
}

/** The pin whose voltage says most, by the kind of a part. */
const TELLING: Readonly<Record<string, string>> = {
  'op-amp': 'out',
  ota: 'out',
  transistor: 'collector',
  jfet: 'drain',
};

function outputsAtRest({ devices }: Rest, mark: DecimalMark): Record<string, string> {
  return Object.fromEntries(
    devices.flatMap(({ part, kind, terminals }) => {
      const pin = terminals.find((t) => t.name === TELLING[kind]);
      return pin
        ? [[part, formatQuantity(pin.volts, 'volts', { unit: true, digits: 3, mark })]]
        : [];
    }),
  );
}

function Table({ name, rest }: { name: string; rest: Rest }) {
  const mark = usePreferences((p) => p.mark);
  const { devices: rows, others } = rest;
  if (rows.length === 0) return null;
  const print = (value: number | null, kind: 'amps' | 'volts') =>
    value === null ? '–' : formatQuantity(value, kind, { unit: true, digits: 3, mark });
  return (
    <>
      <table className={styles.table}>
        <caption>At rest, {name}</caption>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Volts at its pins</th>
            <th scope="col">Current</th>
            <th scope="col">Heat</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ part, terminals, amps, watts }) => (
            <tr key={part}>
              <th scope="row">{part}</th>
              <td className="mono">
                {terminals.map(({ name: pin, volts }) => (
                  <span key={pin}>
                    <i>{pin}</i> {formatFixed(volts, 3, mark)}
                  </span>
                ))}
              </td>
              <td className="mono">{print(amps, 'amps')}</td>
              <td className="mono">
                {watts === null ? '–' : `${formatFixed(watts * 1000, 2, mark)} mW`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {others.length > 0 && (
        <p className={styles.others}>
          It can stand in {others.length === 1 ? 'another state' : `${others.length} other states`}{' '}
          too, stable or balanced on edge:{' '}
          {others.map((nets, k) => (
            <Fragment key={k}>
              {k > 0 && '; '}
              {nets.map(({ net, volts }, i) => (
                <Fragment key={net}>
                  {i > 0 && ', '}
                  <span>{`${net} at ${formatFixed(volts, 3, mark)} V`}</span>
                </Fragment>
              ))}
            </Fragment>
          ))}
          .
        </p>
      )}
    </>
  );
}
