'use client';

import { memo, type ReactNode } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet, WayEnd } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { setLoad, setSource } from './actions';
import { EditableText } from './editable-text';
import styles from './path-strip.module.css';

interface EndProps {
  label: string;
  name: string;
  onName: (name: string) => void;
  children: ReactNode;
}

/** One end of the path: its name, and what it is in numbers. */
function End({ label, name, onName, children }: EndProps) {
  return (
    <div className={styles.end}>
      <EditableText label={label} value={name} className={styles.endName} onCommit={onName} />
      <span className="mono">{children}</span>
    </div>
  );
}

/** What drives a path. */
export const SourceEnd = memo(function SourceEnd({ source }: Pick<Sheet, 'source'>) {
  const mark = usePreferences((p) => p.mark);
  return (
    <End label="Source name" name={source.name} onName={(name) => setSource({ name })}>
      <EditableQuantity
        label="Source resistance"
        value={source.ohms}
        kind="ohms"
        mark={mark}
        shown={`${formatQuantity(source.ohms, 'ohms', { mark })} Ω`}
        onCommit={(ohms) => setSource({ ohms: ohms! })}
      />
      {' · '}
      <EditableQuantity
        label="Source voltage"
        value={source.volts}
        kind="volts"
        mark={mark}
        shown={formatQuantity(source.volts, 'volts', { unit: true, mark })}
        onCommit={(volts) => setSource({ volts: volts! })}
      />
    </End>
  );
});

/** What a path ends in. */
export const LoadEnd = memo(function LoadEnd({ to }: { to: WayEnd }) {
  const mark = usePreferences((p) => p.mark);
  const end = to.is === 'driver' ? { ohms: null, farads: null } : to;
  return (
    <End label="Load name" name={to.name} onName={(name) => setLoad({ name })}>
      <EditableQuantity
        label="Load resistance"
        value={end.ohms}
        kind="ohms"
        mark={mark}
        clearable
        shown={end.ohms === null ? 'open' : `${formatQuantity(end.ohms, 'ohms', { mark })} Ω`}
        onCommit={(ohms) => setLoad({ ohms })}
      />
      {' · '}
      <EditableQuantity
        label="Load capacitance"
        value={end.farads}
        kind="farads"
        mark={mark}
        clearable
        shown={end.farads === null ? 'no C' : `${formatQuantity(end.farads, 'farads', { mark })}F`}
        onCommit={(farads) => setLoad({ farads })}
      />
    </End>
  );
});
