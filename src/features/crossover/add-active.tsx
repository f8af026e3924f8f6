import { Dropdown, Modal } from 'antd';
import { lazy, memo, Suspense, useState } from 'react';
import { allPassFor, INPUT_BUFFER, levelTrim, type ActiveStage } from '@/core/crossover/active';
import { middleHz } from '@/core/crossover/slot-gains';
import { defaultTarget } from '@/core/sheet/default-target';
import type { Crossover } from '@/core/sheet/crossover-schema';
import { Coming } from '../shell/coming';
import { attempt } from '../shell/tell';
import { setUi } from '../sheet/ui-state';
import { addActive } from './actions';
import styles from './ways-strip.module.css';

const StagePicker = lazy(() =>
  import('../sheet/stage-picker').then((m) => ({ default: m.StagePicker })),
);

const ANY = 'any';

interface Props {
  wayId: string;
  wayName: string;
  index: number;
  crossover: Crossover;
  /** How far its driver stands ahead of the deepest. */
  leadMetres: number;
}

/** Puts one more stage with op-amps at the end of a way, before its amplifier. */
export const AddActive = memo(function AddActive(props: Props) {
  const { wayId, wayName, index, crossover, leadMetres } = props;
  const [picking, setPicking] = useState(false);
  const offers = offersOf(crossover, index, leadMetres);
  const add = (asked: ActiveStage) => attempt(() => setUi({ stageId: addActive(wayId, asked) }));
  return (
    <>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            ...offers.map(({ label }, key) => ({ key, label })),
            { key: ANY, label: 'Any other stage …' },
          ],
          onClick: ({ key }) => {
            if (key === ANY) setPicking(true);
            else add(offers[Number(key)].asked);
          },
        }}
      >
        <button type="button" className={styles.add}>
          + op-amp stage<span className="visually-hidden"> of {wayName}</span>
        </button>
      </Dropdown>
      <Modal
        open={picking}
        title={`A stage for ${wayName}`}
        footer={null}
        onCancel={() => setPicking(false)}
        destroyOnHidden
      >
        <Suspense fallback={<Coming />}>
          <StagePicker
            first="peak"
            onPick={(topology) => {
              const target = defaultTarget(topology, middleHz(crossover, index));
              if (add({ topology: topology.id, target })) setPicking(false);
            }}
          />
        </Suspense>
      </Modal>
    </>
  );
});

interface Offer {
  label: string;
  asked: ActiveStage;
}

const HALF_POWER = Math.SQRT1_2;
/** What a shelf lifts or cuts by where it is first offered: half of what a baffle’s step is. */
const SHELF = 10 ** (3 / 20);
/** No delay is offered for less than this. */
const LEAST_LEAD = 0.001;

/** What a way of op-amps is made of, begun with what is known of it. */
function offersOf(crossover: Crossover, index: number, leadMetres: number): Offer[] {
  const hz = crossover.splitsHz[Math.min(index, crossover.splitsHz.length - 1)] ?? 1000;
  const middle = middleHz(crossover, index);
  const lead = leadMetres > LEAST_LEAD ? leadMetres : 0.01;
  return [
    { label: 'Input buffer', asked: INPUT_BUFFER },
    { label: 'Level trim', asked: levelTrim(3) },
    { label: 'All-pass delay', asked: allPassFor(lead) },
    {
      label: 'Low-pass',
      asked: { topology: 'unity-low-pass', target: { f0Hz: hz, q: HALF_POWER } },
    },
    {
      label: 'High-pass',
      asked: { topology: 'unity-high-pass', target: { f0Hz: hz, q: HALF_POWER } },
    },
    {
      label: 'Dip',
      asked: { topology: 'resonator-dip', target: { f0Hz: middle, q: 1.4, boost: 1 / SHELF } },
    },
    {
      label: 'Peak',
      asked: { topology: 'resonator-peak', target: { f0Hz: middle, q: 1.4, boost: SHELF } },
    },
    ...(['low', 'high'] as const).flatMap((end) =>
      (['lift', 'cut'] as const).map((does) => ({
        label: `${end === 'low' ? 'Bass' : 'Treble'} shelf, ${does}`,
        asked: {
          topology: `${end}-shelf-${does}`,
          target: { f0Hz: middle, boost: does === 'lift' ? SHELF : 1 / SHELF },
        },
      })),
    ),
    { label: 'Gain', asked: { topology: 'non-inverting', target: { f0Hz: 1000, gain: 2 } } },
  ];
}
