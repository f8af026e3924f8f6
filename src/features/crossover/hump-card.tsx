import { Button } from 'antd';
import type { Hump } from '@/core/crossover/humps';
import type { TrapOffer, TrapsPicture } from '@/core/crossover/traps';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { setUi } from '../sheet/ui-state';
import { addSlot } from './actions';
import styles from './hump-card.module.css';

export interface MarkedHump {
  way: string;
  hump: Hump;
}

interface Props {
  sheet: Sheet;
  marked: MarkedHump;
  traps: TrapsPicture | null;
  stale: boolean;
  onChange: (marked: MarkedHump | null) => void;
}

const WHY = {
  coil: 'the coil in line suits it, and the amplifier bears it',
  load: 'a trap across would load the amplifier too hard',
  'nothing-in-line': 'nothing lies in line that a trap across could work against',
} as const;

/** A hump that is marked, and the two traps that would take it down. */
export function HumpCard({ sheet, marked, traps, stale, onChange }: Props) {
  const mark = usePreferences((p) => p.mark);
  const { hump, way } = marked;
  const change = (part: Partial<Hump>) => onChange({ way, hump: { ...hump, ...part } });
  const wayName = sheet.ways.find((w) => w.id === way)?.name ?? way;
  return (
    <section className={styles.card} aria-label="Hump" aria-busy={stale}>
      <p className={styles.head}>
        Hump of {wayName} at{' '}
        <EditableQuantity
          label="Middle of the hump"
          value={hump.hz}
          kind="hertz"
          mark={mark}
          shown={formatQuantity(hump.hz, 'hertz', { unit: true, mark, digits: 3 })}
          onCommit={(hz) => change({ hz: hz! })}
        />
        ,{' '}
        <EditableQuantity
          label="Height of the hump"
          value={hump.db}
          kind="decibels"
          mark={mark}
          shown={`+${formatFixed(hump.db, 1, mark)} dB`}
          onCommit={(db) => change({ db: db! })}
        />
        ,{' '}
        <EditableQuantity
          label="Width of the hump, octaves"
          value={hump.octaves}
          kind="ratio"
          mark={mark}
          shown={`${formatFixed(hump.octaves, 1, mark)} oct`}
          onCommit={(octaves) => change({ octaves: octaves! })}
        />
      </p>
      {traps?.problem && <p role="alert">{traps.problem}</p>}
      {traps && !traps.problem && (
        <>
          <Offer
            name="Trap across the driver"
            offer={traps.across}
            {...{ way, traps, mark, onChange }}
          />
          <Offer name="Trap in line" offer={traps.inLine} {...{ way, traps, mark, onChange }} />
          {traps.suits && (
            <p className={styles.quiet}>
              {traps.suits.which === 'across' ? 'Across' : 'In line'}: {WHY[traps.suits.why]}.
            </p>
          )}
          {traps.dip && (
            <p className={styles.warn}>
              The dip at {formatQuantity(traps.dip.hz, 'hertz', { unit: true, mark, digits: 3 })}{' '}
              goes down with it, −{formatFixed(traps.dip.lowerDb, 1, mark)} dB.
            </p>
          )}
        </>
      )}
      <Button size="small" type="text" onClick={() => onChange(null)}>
        Close
      </Button>
    </section>
  );
}

function Offer({
  name,
  offer,
  way,
  traps,
  mark,
  onChange,
}: {
  name: string;
  offer: TrapOffer | null;
  way: string;
  traps: TrapsPicture;
  mark: DecimalMark;
  onChange: Props['onChange'];
}) {
  if (!offer) return <p className={styles.quiet}>{name}: takes too little here.</p>;
  const { L1, C1, R1 } = offer.values;
  const print = (x: number, kind: 'henries' | 'farads' | 'ohms') =>
    formatQuantity(x, kind, { mark, digits: 2 });
  const ohms = (x: number) => formatQuantity(x, 'ohms', { unit: true, mark, digits: 2 });
  return (
    <p className={styles.offer}>
      <button
        type="button"
        className={styles.take}
        title="Put it into the way"
        onClick={() => {
          if (attempt(() => setUi({ stageId: addSlot(way, offer.slot) }))) onChange(null);
        }}
      >
        {name}
      </button>{' '}
      <span className="mono">
        {print(L1, 'henries')} · {print(C1, 'farads')} · {print(R1, 'ohms')}
      </span>
      <span className={styles.quiet}>
        {' '}
        least load {ohms(traps.before!.leastOhms)} → {ohms(offer.leastOhms)}
      </span>
    </p>
  );
}
