import { Dropdown } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { figuresOf } from '@/core/parts/device-figures';
import type { NamedModel, PartKind } from '@/core/parts/part-kind';
import { useDrawer } from '../drawer/use-drawer';
import styles from './circuit-panel.module.css';

const FiguresWindow = lazy(() =>
  import('./figures-window').then((m) => ({ default: m.FiguresWindow })),
);

interface DeviceMenuProps {
  kind: PartKind;
  /** What stands there now. */
  device: NamedModel;
  /** What stands there without a choice, where that is offered. */
  usual?: { name: string; chosen: boolean };
  label: string;
  text: string;
  /** Over the window of its figures. */
  title: string;
  /** Nothing for what is usual. */
  onChoose: (device: NamedModel | undefined) => void;
  open?: boolean;
  onOpen?: (open: boolean) => void;
}

const USUAL = 'usual';
const FIGURES = 'figures';

/** Devices to choose from: those that are offered, those of the drawer, and the present one changed. */
export function DeviceMenu(props: DeviceMenuProps) {
  const { kind, device, usual, label, text, title, onChoose, open, onOpen } = props;
  const { contents } = useDrawer();
  const [figures, setFigures] = useState(false);
  const offered = kind.models ?? [];
  const own = (contents?.entries ?? []).filter(
    (e) => e.kind === kind.kind && e.model !== undefined && !offered.some((m) => m.name === e.name),
  );
  const choices = new Map<string, NamedModel>([
    // The first one offered is what is usual of a kind.
    ...offered
      .slice(usual && offered[0].name === usual.name ? 1 : 0)
      .map((m) => [`offered ${m.name}`, m] as const),
    ...own.map(({ id, name, model }) => [`own ${id}`, { name, model }] as const),
  ]);
  const items = (of: string) =>
    [...choices].filter(([key]) => key.startsWith(of)).map(([key, m]) => ({ key, label: m.name }));
  const selected = [...choices].find(([, m]) => m.name === device.name)?.[0];
  return (
    <>
      <Dropdown
        trigger={['click']}
        {...(open === undefined ? {} : { open })}
        onOpenChange={onOpen}
        menu={{
          selectedKeys: usual?.chosen ? [USUAL] : selected === undefined ? [] : [selected],
          items: [
            ...(usual ? [{ key: USUAL, label: usual.name }] : []),
            ...items('offered'),
            ...(own.length > 0
              ? [{ type: 'group' as const, label: 'From the drawer', children: items('own') }]
              : []),
            ...(figuresOf(kind).length > 0
              ? [{ type: 'divider' as const }, { key: FIGURES, label: 'Change its figures…' }]
              : []),
          ],
          onClick: ({ key }) => (key === FIGURES ? setFigures(true) : onChoose(choices.get(key))),
        }}
      >
        <button type="button" className={styles.opAmp} aria-label={label}>
          {text}
        </button>
      </Dropdown>
      {figures && (
        <Suspense>
          <FiguresWindow
            kind={kind}
            device={device}
            title={title}
            onKeep={onChoose}
            onClose={() => setFigures(false)}
          />
        </Suspense>
      )}
    </>
  );
}
