import { Button, InputNumber } from 'antd';
import type { SweepTake } from '@/core/bench/sweep-take';
import { usePreferences } from '@/store/preferences';
import { LevelMeter } from './level-meter';
import { adviceWords } from './sweep-words';
import { FIRST, type SweepSettings, type useSweep } from './use-sweep';
import { NotTaken } from './not-taken';
import styles from './sweep.module.css';

interface LiveSweepProps {
  settings: SweepSettings;
  change: (part: Partial<SweepSettings>) => void;
  sweep: ReturnType<typeof useSweep>;
  onTake: (name: string, take: SweepTake) => void;
}

/** Level, loop-back, sweep: in the order in which they are done. */
export function LiveSweep({ settings, change, sweep, onTake }: LiveSweepProps) {
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
      <NotTaken problem={problem} />
    </>
  );
}
