import { Button, Input, InputNumber, Modal, Segmented } from 'antd';
import { useState } from 'react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import { SOUND_CARD } from '@/core/bench/meters';
import type { RigBoard } from '@/core/bench/rig-board';
import type { SweepTake } from '@/core/bench/sweep-take';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import type { BroughtTake } from '../bench-actions';
import { MeterChoice } from '../meter-choice';
import { PointChoice } from '../point-choice';
import { FileSweep } from './file-sweep';
import { Bridge } from './bridge';
import { LevelMeter } from './level-meter';
import { adviceWords, noteOf } from './sweep-words';
import { useSweep, type SweepSettings } from './use-sweep';
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

const FIRST: SweepSettings = {
  device: 'simulated',
  board: { seed: 1, fault: '', meter: SOUND_CARD },
  levelDb: -12,
  seconds: 2,
  turns: 2,
};

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

/** The board behind the simulated device. */
function BoardFields({
  board,
  onBoard,
}: {
  board: RigBoard;
  onBoard: (part: Partial<RigBoard>) => void;
}) {
  return (
    <>
      <div className={styles.row}>
        <label>
          Board number
          <InputNumber<number>
            min={0}
            max={999_999}
            precision={0}
            value={board.seed}
            onChange={(seed) => onBoard({ seed: seed ?? 1 })}
          />
        </label>
        <label className={styles.wide}>
          What is wrong with it
          <Input
            value={board.fault}
            placeholder="nothing, or C2=*1.3"
            maxLength={60}
            onChange={(e) => onBoard({ fault: e.target.value })}
          />
        </label>
      </div>
      <p className={styles.small}>
        Values are drawn from the sheet’s tolerances. Also C2=47n, R1=R2 (swapped), C2=missing,
        R3=shorted, A1=100k (its bandwidth).
      </p>
    </>
  );
}

const Cautions = () => (
  <p className={styles.caution}>
    ⚠ Begin with everything turned down and nothing that makes sound connected: sweeps are loud, and
    hurt ears and tweeters. An input takes a volt or two: never the output of a power amplifier.
    Nothing with mains in it is measured this way.
  </p>
);

interface LiveSweepProps {
  settings: SweepSettings;
  change: (part: Partial<SweepSettings>) => void;
  sweep: ReturnType<typeof useSweep>;
  onTake: (name: string, take: SweepTake) => void;
}

/** Level, loop-back, sweep: in the order in which they are done. */
function LiveSweep({ settings, change, sweep, onTake }: LiveSweepProps) {
  const mark = usePreferences((p) => p.mark);
  const { doing, advice, hasWire, isAllowed, problem } = sweep;
  const isSimulated = settings.device === 'simulated';
  const start = async () => {
    const take = await sweep.sweep();
    if (take) onTake(isSimulated ? `sweep, board ${settings.board.seed}` : 'sweep', take);
  };
  return (
    <>
      <ol className={styles.steps}>
        <li>
          <div className={styles.row}>
            <label>
              Source, dB under full scale
              <InputNumber<number>
                min={-60}
                max={0}
                precision={0}
                value={settings.levelDb}
                onChange={(levelDb) => change({ levelDb: levelDb ?? FIRST.levelDb })}
              />
            </label>
            <Button
              loading={doing === 'level'}
              disabled={doing !== null}
              onClick={() => void sweep.checkLevel()}
            >
              Check the level
            </Button>
            <LevelMeter peak={sweep.peak} />
          </div>
          <p className={styles.small} role="status">
            {advice
              ? adviceWords(advice, mark)
              : 'A tone where the board is loudest; it rises slowly from nothing.'}
            {advice !== null && advice.changeDb !== 0 && (
              <Button
                size="small"
                type="link"
                onClick={() =>
                  change({
                    levelDb: Math.max(-60, Math.min(0, settings.levelDb + advice.changeDb)),
                  })
                }
              >
                Change by {advice.changeDb > 0 ? '+' : '−'}
                {Math.abs(advice.changeDb)} dB
              </Button>
            )}
          </p>
        </li>
        <li>
          <div className={styles.row}>
            <Button
              loading={doing === 'wire'}
              disabled={doing !== null || !isAllowed}
              onClick={() => void sweep.measureWire()}
            >
              Measure the loop-back
            </Button>
            <span className={styles.small}>
              {hasWire
                ? 'Measured: what converters and leads do is taken out, and phase is told.'
                : 'A wire from output to input in the board’s place. Without it phase is not told.'}
            </span>
          </div>
        </li>
        <li>
          <div className={styles.row}>
            <Button
              type="primary"
              loading={doing === 'sweep'}
              disabled={doing !== null || !isAllowed}
              onClick={() => void start()}
            >
              Sweep it
            </Button>
            {doing !== null && <Button onClick={sweep.stop}>Stop</Button>}
            {!isAllowed && doing === null && (
              <span className={styles.small}>The level is checked first, with a slow start.</span>
            )}
          </div>
        </li>
      </ol>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem} Nothing was taken.
        </p>
      )}
    </>
  );
}
