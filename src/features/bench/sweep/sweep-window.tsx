import { Button, InputNumber, Modal, Segmented } from 'antd';
import { useState } from 'react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { RigBoard } from '@/core/bench/rig-board';
import type { SweepTake } from '@/core/bench/sweep-take';
import type { Sheet } from '@/core/sheet/schema';
import type { BroughtTake } from '../bench-actions';
import { MeterChoice } from '../meter-choice';
import { PointChoice } from '../point-choice';
import { FileSweep } from './file-sweep';
import { Bridge } from './bridge';
import { LiveSweep } from './live-sweep';
import { BoardFields, Cautions } from './sweep-fields';
import { noteOf } from './sweep-words';
import { FIRST, useSweep, type SweepSettings } from './use-sweep';
import styles from './sweep.module.css';

interface SweepProps {
  sheet: Sheet;
  board: SheetBoard | undefined;
  onTake: (name: string, take: BroughtTake) => void;
}

/** Sweeps a board: through this computer’s audio, through another player, or a simulated one. */
export function SweepButton(props: SweepProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button type="primary" onClick={() => setOpen(true)}>
        Sweep the board
      </Button>
      {open && (
        <SweepWindow
          {...props}
          onTake={(name, take) => {
            setOpen(false);
            props.onTake(name, take);
          }}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

/** Of real things nobody knows how loud they are. */
const FIRST_DB = { simulated: FIRST.levelDb, here: -30 } as const;

type Way = SweepSettings['device'] | 'files';

const WAYS: readonly { value: Way; label: string }[] = [
  { value: 'simulated', label: 'A simulated board' },
  { value: 'here', label: 'This computer’s audio' },
  { value: 'files', label: 'Another player' },
];

function SweepWindow({ sheet, board, onTake, onClose }: SweepProps & { onClose: () => void }) {
  const [settings, setSettings] = useState(FIRST);
  const [files, setFiles] = useState(false);
  const sweep = useSweep(sheet, board, settings);
  const change = (part: Partial<SweepSettings>) => setSettings((s) => ({ ...s, ...part }));
  const { meter, of } = settings.board;
  const isSimulated = !files && settings.device === 'simulated';
  const isOhms = of?.is === 'impedance';
  const taken = (name: string, take: SweepTake) =>
    onTake(name, {
      ...take.curve,
      ...(meter ? { meter } : {}),
      ...(of ? { of } : {}),
      note: noteOf(take),
    });
  const changeBoard = (part: Partial<RigBoard>) =>
    change({ board: { ...settings.board, ...part } });
  return (
    <Modal
      open
      title="Sweep the board"
      width={620}
      footer={null}
      onCancel={() => {
        sweep.stop();
        onClose();
      }}
    >
      <div className={styles.form}>
        <Segmented<Way>
          block
          aria-label="What it is swept with"
          value={files ? 'files' : settings.device}
          options={[...WAYS]}
          disabled={sweep.doing !== null}
          onChange={(way) => {
            sweep.forgetWire();
            setFiles(way === 'files');
            if (way !== 'files') change({ device: way, levelDb: FIRST_DB[way] });
            // Ohms are read by a bridge, and only the simulated bench has one.
            if (way !== 'simulated' && isOhms) changeBoard({ of: undefined });
          }}
        />
        {isSimulated && <BoardFields board={settings.board} onBoard={changeBoard} />}
        {(files || settings.device === 'here') && <Cautions />}
        <label>
          What is measured
          <PointChoice
            sheet={sheet}
            of={of}
            withImpedance={isSimulated}
            onPoint={(next) => changeBoard({ of: next })}
          />
        </label>
        {isOhms ? (
          <Bridge
            sheet={sheet}
            board={settings.board}
            onTake={(name, curve) => onTake(name, { ...curve, of })}
          />
        ) : (
          <>
            <div className={styles.row}>
              <label className={styles.wide}>
                Measured with
                <MeterChoice meter={meter} onMeter={(next) => changeBoard({ meter: next })} />
              </label>
              <label>
                One sweep, seconds
                <InputNumber<number>
                  min={0.5}
                  max={10}
                  step={0.5}
                  value={settings.seconds}
                  onChange={(seconds) => change({ seconds: seconds ?? FIRST.seconds })}
                />
              </label>
              {!files && (
                <label>
                  How often
                  <InputNumber<number>
                    min={1}
                    max={16}
                    precision={0}
                    value={settings.turns}
                    onChange={(turns) => change({ turns: turns ?? FIRST.turns })}
                  />
                </label>
              )}
            </div>
            {files ? (
              <FileSweep sheet={sheet} seconds={settings.seconds} onTake={taken} />
            ) : (
              <LiveSweep settings={settings} change={change} sweep={sweep} onTake={taken} />
            )}
          </>
        )}
      </div>
    </Modal>
  );
}
