'use client';

import { Button, Modal, Segmented } from 'antd';
import { usePreferences, type Preferences } from '@/store/preferences';
import { useShell } from './commands';
import { useProgram } from './program';
import styles from './preferences-window.module.css';

/** How things are shown: acts at once. */
export function PreferencesWindow() {
  const open = useShell((s) => s.open === 'preferences');
  const { theme, resistors, mark, set } = usePreferences();
  return (
    <Modal
      open={open}
      forceRender
      onCancel={() => useShell.setState({ open: null })}
      footer={null}
      title="Preferences"
      width={440}
    >
      <Row label="Paper">
        <Segmented<Preferences['theme']>
          aria-label="Paper"
          value={theme}
          onChange={(value) => set({ theme: value })}
          options={[
            { value: 'system', label: 'As the system' },
            { value: 'light', label: 'Light' },
            { value: 'dark', label: 'Dark' },
          ]}
        />
      </Row>
      <Row label="Resistors drawn as">
        <Segmented<Preferences['resistors']>
          aria-label="Resistors drawn as"
          value={resistors}
          onChange={(value) => set({ resistors: value })}
          options={[
            { value: 'box', label: 'Boxes' },
            { value: 'zigzag', label: 'Zigzags' },
          ]}
        />
      </Row>
      <Row label="Decimal mark">
        <Segmented<Preferences['mark']>
          aria-label="Decimal mark"
          value={mark}
          onChange={(value) => set({ mark: value })}
          options={[
            { value: 'point', label: 'Point, 2.2k' },
            { value: 'comma', label: 'Comma, 2,2k' },
          ]}
        />
      </Row>
      <Kept />
    </Modal>
  );
}

const KEPT_WORDS = {
  unknown: 'being looked at',
  fetching: 'being fetched',
  kept: 'works: all of it is in this browser',
  not: 'not in this browser, or not from this address',
};

/** Whether the program itself is in this browser, and can be one of the machine’s own. */
function Kept() {
  const { kept, install } = useProgram();
  return (
    <>
      <Row label="Without a network">
        <span>{KEPT_WORDS[kept]}</span>
      </Row>
      {install !== null && (
        <Row label="As an application of this machine">
          <Button
            onClick={() => void install.prompt().then(() => useProgram.setState({ install: null }))}
          >
            Install
          </Button>
        </Row>
      )}
    </>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className={styles.row}>
      <span>{label}</span>
      {children}
    </div>
  );
}
