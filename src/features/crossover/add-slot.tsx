import { Dropdown } from 'antd';
import { memo } from 'react';
import type { DriverModel } from '@/core/parts/kinds/driver';
import type { Crossover } from '@/core/sheet/crossover-schema';
import { slotKindOf, type Slot } from '@/core/slots';
import { riseInBox } from '@/core/speaker/figures';
import { useOpenLibrary } from '@/store/open-library';
import { attempt } from '../shell/tell';
import { setUi } from '../sheet/ui-state';
import { addSlot } from './actions';
import styles from './ways-strip.module.css';

interface Props {
  wayId: string;
  wayName: string;
  /** What the way ends in. */
  driver: string;
  index: number;
  crossover: Crossover;
}

/** Puts one more slot at the end of a way. */
export const AddSlot = memo(function AddSlot(props: Props) {
  const { wayId, wayName, driver, index, crossover } = props;
  const model = useOpenLibrary((s) => s.library.drivers.find((d) => d.id === driver)?.model);
  const offers = offersOf(crossover, index, model);
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: offers.map(({ key, label }) => ({ key, label })),
        onClick: ({ key }) => {
          const { slot } = offers.find((o) => o.key === key)!;
          attempt(() => setUi({ stageId: addSlot(wayId, slot) }));
        },
      }}
    >
      <button type="button" className={styles.add}>
        + in line or across<span className="visually-hidden"> of {wayName}</span>
      </button>
    </Dropdown>
  );
});

interface Offer {
  key: string;
  label: string;
  slot: Slot;
}

/** What can be added, begun with what is known of the way and its driver. */
function offersOf(crossover: Crossover, way: number, model: DriverModel | undefined): Offer[] {
  const ohms = crossover.nominalOhms[way];
  const hz = crossover.splitsHz[Math.min(way, crossover.splitsHz.length - 1)] ?? 1000;
  const { alignment, order } = crossover;
  const section = { is: 'section' as const, alignment, order, ohms };
  const re = model?.reOhms ?? ohms;
  const offer = (key: string, slot: Slot, label = slotKindOf(slot).title): Offer => ({
    key,
    label,
    slot,
  });
  const part = (key: string, label: string, slot: Omit<Extract<Slot, { is: 'part' }>, 'is'>) =>
    offer(key, { is: 'part', ...slot }, label);
  return [
    offer('pad', { is: 'pad', downDb: 3, ohms, adjustable: false }),
    offer('across', { is: 'trap-across', hz, downDb: 3, octaves: 1, sourceOhms: ohms / 2 }),
    offer('in-line', { is: 'trap-in-line', hz, downDb: 3, octaves: 1, loadOhms: ohms }),
    offer('flatten-coil', {
      is: 'flatten-coil',
      reOhms: re,
      leHenries: model?.leHenries || 0.5e-3,
    }),
    ...(model?.fsHz && model.qms && model.qes
      ? [
          offer('flatten-peak', {
            is: 'flatten-peak',
            reOhms: re,
            ...inItsBox(model.fsHz, model.qms, model.qes, model),
          }),
        ]
      : []),
    offer('low', { ...section, pass: 'low', hz }, 'Low-pass'),
    offer('high', { ...section, pass: 'high', hz }, 'High-pass'),
    offer('band', { ...section, pass: 'band', lowerHz: hz / 2, upperHz: hz * 2 }, 'Band-pass'),
    part('r-line', 'Resistor in line', { part: 'resistor', at: 'line', value: 1 }),
    part('r-across', 'Resistor across', { part: 'resistor', at: 'across', value: 10 }),
    part('c-line', 'Capacitor in line', { part: 'capacitor', at: 'line', value: 10e-6 }),
    part('c-across', 'Capacitor across', { part: 'capacitor', at: 'across', value: 4.7e-6 }),
    part('l-line', 'Coil in line', { part: 'coil', at: 'line', value: 0.5e-3 }),
    part('l-across', 'Coil across', { part: 'coil', at: 'across', value: 0.5e-3 }),
  ];
}

/** A resonance and its Qs, raised as the air of a closed box raises them. */
function inItsBox(fsHz: number, qms: number, qes: number, model: DriverModel) {
  const rise = riseInBox(model);
  return { hz: fsHz * rise, qms: qms * rise, qes: qes * rise };
}
