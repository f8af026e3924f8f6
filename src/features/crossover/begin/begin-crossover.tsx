'use client';

import { Button, Input, Modal } from 'antd';
import { useState } from 'react';
import { crossoverOfUnits } from '@/core/crossover/propose';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { Sheet } from '@/core/sheet/schema';
import { isVisible } from '@/core/text';
import { now } from '@/store/ids';
import { whyNotMade } from '@/store/problems';
import { addSheet } from '@/store/sheets';
import { useDrivers } from '../../drivers/use-drivers';
import { BEGINNING, checkChosen, unitsOf, splitsOf, type Beginning } from './beginning';
import { BeginFields } from './begin-fields';
import styles from './begin-crossover.module.css';

interface Props {
  open: boolean;
  onClose: () => void;
  onMade: (sheet: Sheet) => void;
}

/** Begin a crossover from the units that it is to drive. */
export function BeginCrossover({ open, onClose, onMade }: Props) {
  return (
    <Modal
      open={open}
      onCancel={onClose}
      title="Which drivers?"
      footer={null}
      width={680}
      style={{ top: 56 }}
      destroyOnHidden
    >
      <Form onMade={onMade} />
    </Modal>
  );
}

function Form({ onMade }: Pick<Props, 'onMade'>) {
  const { contents, problem } = useDrivers();
  const [beginning, setBeginning] = useState<Beginning>(BEGINNING);
  const [title, setTitle] = useState('');
  const [error, setError] = useState<string>();
  const drivers = contents?.entries ?? [];
  const begin = async () => {
    try {
      checkChosen(beginning);
      const { alignment, order, each } = beginning;
      const units = unitsOf(beginning, drivers);
      const splitsHz = splitsOf(beginning, units).map(({ hz }) => hz);
      const named = isVisible(title) ? title.trim() : usualTitle(units.length);
      onMade(
        await addSheet(
          crossoverOfUnits({ title: named, at: now(), units, splitsHz, alignment, order, each }),
        ),
      );
    } catch (failure) {
      setError(whyNotMade(failure));
    }
  };
  return (
    <form
      className={styles.form}
      onSubmit={(e) => {
        e.preventDefault();
        void begin();
      }}
    >
      {problem !== null && <p role="alert">The drivers cannot be read: {problem}.</p>}
      {!contents ? (
        <p className={styles.none}>Reading the drivers …</p>
      ) : drivers.length === 0 ? (
        <p className={styles.none}>
          There is no driver yet. Under Drivers one is made of a data sheet’s figures or of measured
          tables.
        </p>
      ) : (
        <BeginFields
          drivers={drivers}
          beginning={beginning}
          onChange={(next) => {
            setBeginning(next);
            setError(undefined);
          }}
        />
      )}
      <div className={styles.foot}>
        <label>
          Called
          <Input
            value={title}
            placeholder={usualTitle(beginning.driverIds.length)}
            maxLength={SHEET_LIMITS.name}
            onChange={(e) => setTitle(e.target.value)}
          />
        </label>
        <Button type="primary" htmlType="submit">
          Begin the crossover
        </Button>
      </div>
      {error && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
    </form>
  );
}

const COUNTS = ['no', 'one', 'two', 'three', 'four'];
const usualTitle = (ways: number) =>
  ways === 1 ? 'Speaker of one way' : `Speaker of ${COUNTS[ways]} ways`;
