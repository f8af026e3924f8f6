'use client';

import { memo, type ReactNode } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet, WayEnd } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { setLoad, setSource } from './actions/ends';
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
  if (to.is === 'driver') return <DriverEnd to={to} />;
  return (
    <End label="Load name" name={to.name} onName={(name) => setLoad({ name })}>
      <EditableQuantity
        label="Load resistance"
        value={to.ohms}
        kind="ohms"
        mark={mark}
        clearable
        shown={to.ohms === null ? 'open' : `${formatQuantity(to.ohms, 'ohms', { mark })} Ω`}
        onCommit={(ohms) => setLoad({ ohms })}
      />
      {' · '}
      <EditableQuantity
        label="Load capacitance"
        value={to.farads}
        kind="farads"
        mark={mark}
        clearable
        shown={to.farads === null ? 'no C' : `${formatQuantity(to.farads, 'farads', { mark })}F`}
        onCommit={(farads) => setLoad({ farads })}
      />
    </End>
  );
});

/** A loudspeaker of the library, by name, and how it is joined. */
function DriverEnd({ to }: { to: Extract<WayEnd, { is: 'driver' }> }) {
  const found = useOpenLibrary((s) => s.library.drivers.find((d) => d.id === to.driver));
  return (
    <End label="Load name" name={to.name} onName={(name) => setLoad({ name })}>
      {found ? found.name : 'not in this browser'}
      {to.inverted ? ', turned round' : ''}
    </End>
  );
}
