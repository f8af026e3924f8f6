import { Button, Select } from 'antd';
import { Trash2 } from 'lucide-react';
import { usableBand } from '@/core/crossover/propose';
import { MOST_WAYS } from '@/core/crossover/ways';
import { ReedError } from '@/core/errors';
import type { DriverEntry } from '@/core/library/driver';
import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { ALIGNMENT_WORDS, ALIGNMENTS, hasOrder, ORDERS } from '@/core/slots/section';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { splitsOf, unitsOf, withoutRow, type Beginning } from './beginning';
import styles from './begin-crossover.module.css';

interface Props {
  drivers: readonly DriverEntry[];
  beginning: Beginning;
  onChange: (beginning: Beginning) => void;
}

/** A driver for each way from the lowest up, where they are divided, and how. */
export function BeginFields({ drivers, beginning, onChange }: Props) {
  const mark = usePreferences((p) => p.mark);
  const { driverIds } = beginning;
  const change = (part: Partial<Beginning>) => onChange({ ...beginning, ...part });
  const units = unitsOf(beginning, drivers);
  // Splits are proposed once every way has its driver: before, a proposal would jump about.
  const splits = units.length === driverIds.length ? splitsOf(beginning, units) : [];
  const doubts = splits.flatMap(({ doubt }) => doubt ?? []);
  return (
    <>
      <ol className={styles.ways} aria-label="Ways">
        {driverIds.map((id, i) => (
          <li key={i}>
            <span className={styles.place}>{placeWords(i, driverIds.length)}</span>
            <Select
              className={styles.driver}
              aria-label={`Driver of way ${i + 1}`}
              placeholder="Choose a driver"
              showSearch={{ optionFilterProp: 'label' }}
              value={id}
              options={drivers.map((d) => ({ value: d.id, label: d.name }))}
              onChange={(chosen) =>
                change({ driverIds: driverIds.map((old, k) => (k === i ? chosen : old)) })
              }
            />
            <span className={styles.band}>
              {bandWords(
                drivers.find((d) => d.id === id),
                mark,
              )}
            </span>
            <Button
              type="text"
              size="small"
              aria-label={`Without way ${i + 1}`}
              disabled={driverIds.length === 1}
              icon={<Trash2 size={14} />}
              onClick={() => onChange(withoutRow(beginning, i))}
            />
            {i < driverIds.length - 1 && (
              <span className={styles.split}>
                divided at{' '}
                {splits[i] ? (
                  <EditableQuantity
                    label={`Split ${i + 1}`}
                    value={splits[i].hz}
                    kind="hertz"
                    mark={mark}
                    shown={formatQuantity(splits[i].hz, 'hertz', { unit: true, mark, digits: 4 })}
                    onCommit={(hz) => change({ typedHz: { ...beginning.typedHz, [i]: hz! } })}
                  />
                ) : (
                  '…'
                )}
              </span>
            )}
          </li>
        ))}
      </ol>
      {driverIds.length < MOST_WAYS && (
        <Button
          className={styles.more}
          type="dashed"
          onClick={() => change({ driverIds: [...driverIds, null], typedHz: {} })}
        >
          One more way above
        </Button>
      )}
      <How beginning={beginning} change={change} />
      {doubts.length > 0 && (
        <ul className={styles.doubts} aria-label="Doubts">
          {doubts.map((doubt) => (
            <li key={doubt}>{doubt}</li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What kind of sections, and what they are built of. */
function How({
  beginning: { alignment, order, each },
  change,
}: {
  beginning: Beginning;
  change: (part: Partial<Beginning>) => void;
}) {
  return (
    <div className={styles.how}>
      <Select
        aria-label="Alignment"
        value={alignment}
        popupMatchSelectWidth={false}
        options={ALIGNMENTS.map((value) => ({ value, label: ALIGNMENT_WORDS[value] }))}
        onChange={(value) =>
          change({ alignment: value, ...(hasOrder(value, order) ? {} : { order: order + 1 }) })
        }
      />
      of order
      <Select
        aria-label="Order"
        value={order}
        options={ORDERS.map((value) => ({
          value,
          label: String(value),
          disabled: !hasOrder(alignment, value),
        }))}
        onChange={(value) => change({ order: value })}
      />
      built with
      <Select
        aria-label="Amplifiers"
        value={each}
        popupMatchSelectWidth={false}
        options={[
          { value: false, label: 'one amplifier, coils and capacitors behind it' },
          { value: true, label: 'an amplifier for each way, op-amps before them' },
        ]}
        onChange={(value) => change({ each: value })}
      />
    </div>
  );
}

const placeWords = (i: number, count: number): string =>
  count === 1 ? 'all' : i === 0 ? 'lowest' : i === count - 1 ? 'highest' : 'between';

/** Where a driver is of use. */
function bandWords(driver: DriverEntry | undefined, mark: DecimalMark): string {
  if (!driver) return '';
  const hz = (x: number) => formatQuantity(x, 'hertz', { unit: true, mark, digits: 2 });
  try {
    const { fromHz, toHz } = usableBand(driver.model);
    return `of use ${hz(fromHz)} to ${hz(toHz)}`;
  } catch (error) {
    if (error instanceof ReedError) return error.message;
    throw error;
  }
}
