import { Button, Select } from 'antd';
import { useState } from 'react';
import type { Stage } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { attempt } from '../shell/tell';
import { setMaking } from './actions/parts';
import { fitAsBefore, stopFitting, useFitting } from './fitting';
import { madeWords } from './made-words';
import styles from './solve-form.module.css';

const AS_ALL = 'as-all';

/** How a part may be made up, in the order it is offered. */
const MAKINGS = [
  { value: AS_ALL, label: 'as all parts of the sheet' },
  { value: 'none', label: 'one part' },
  { value: 'parallel', label: 'two in parallel, where it pays' },
  { value: 'series', label: 'two in series, where it pays' },
  { value: 'both', label: 'two either way, where it pays' },
  { value: 'trimmer', label: 'one part and a trimmer' },
] as const;
type Making = (typeof MAKINGS)[number]['value'];

interface MadeFormProps {
  stage: Stage;
  part: string;
  name: string;
}

/** What a part is made up of, and how it may be when parts are fitted together. */
export function MadeForm({ stage, part, name }: MadeFormProps) {
  const mark = usePreferences((p) => p.mark);
  const { running, problem } = useFitting();
  const [changed, setChanged] = useState(false);
  const own = stage.parts[part];
  const kind = drawnParts(stage).find((p) => p.id === part)!.kind;
  return (
    <div className={styles.form}>
      <p>
        {name} is <b>{madeWords(kind, own, mark)}</b>
      </p>
      <label className={styles.row}>
        May be
        <Select<Making>
          className={styles.grow}
          aria-label={`${name} may be`}
          value={own.may ?? AS_ALL}
          options={MAKINGS.filter((m) => m.value !== 'trimmer' || kind === 'resistor').map((m) => ({
            ...m,
          }))}
          onChange={(may) => {
            if (attempt(() => setMaking(stage.id, part, may === AS_ALL ? undefined : may)))
              setChanged(true);
          }}
        />
      </label>
      {own.may === 'trimmer' && (
        <small>
          The trimmer is set on the finished board, by its reading: the spread then takes it to be
          within a hundredth of its track.
        </small>
      )}
      {(changed || running) && (
        <div className={styles.row}>
          {running ? (
            <Button onClick={stopFitting}>Stop here</Button>
          ) : (
            <Button type="primary" onClick={() => void fitAsBefore()}>
              Fit all parts together
            </Button>
          )}
          <span role="status">{running ? 'Choosing…' : 'makes it up'}</span>
        </div>
      )}
      {problem !== null && <p role="alert">{problem}</p>}
    </div>
  );
}
