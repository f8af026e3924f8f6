import { Button, Upload } from 'antd';
import { useState } from 'react';
import { sweepPlan, sweepSamples } from '@/core/bench/sweep-plan';
import type { SweepTake } from '@/core/bench/sweep-take';
import { messageOf } from '@/core/errors';
import { wavOf } from '@/core/formats/wav';
import type { Sheet } from '@/core/sheet/schema';
import type { Recording } from '@/core/sweep/swept';
import { download, fileName } from '@/ui/download';
import { engine } from '@/workers/engine';
import { readRecording, type NamedRecording } from './read-recording';
import { NotTaken } from './not-taken';
import styles from './sweep.module.css';

/** What is written is played at this rate and level. */
const RATE = 48_000;
const LEVEL = 0.25;
const MOST_FILES = 16;

interface FileSweepProps {
  sheet: Sheet;
  seconds: number;
  onTake: (name: string, take: SweepTake) => void;
}

/** A sweep that is played and recorded elsewhere: the file to play, and the recordings of it. */
export function FileSweep({ sheet, seconds, onTake }: FileSweepProps) {
  const [wire, setWire] = useState<NamedRecording | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const during = async (work: () => Promise<void> | void) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  const planNow = () => sweepPlan(sheet.view, RATE, seconds);
  const save = () =>
    during(() => {
      const samples = sweepSamples(planNow(), LEVEL);
      const name = fileName(`${sheet.title} sweep ${seconds} s`, 'wav');
      download(name, new Blob([wavOf(samples, RATE) as BlobPart]), 'audio/wav');
    });
  const take = (recordings: readonly NamedRecording[]) =>
    during(async () => {
      const { fromHz, toHz } = sheet.view;
      const loopBack = wire ? { recording: plain(wire), level: LEVEL } : undefined;
      const input = {
        view: { fromHz, toHz },
        plan: planNow(),
        level: LEVEL,
        recordings: recordings.map(plain),
        ...(loopBack ? { loopBack } : {}),
      };
      const found = await engine().run('sweepTake', input);
      onTake(recordings[0].name.replace(/\.[^.]*$/, ''), found);
    });
  return (
    <>
      <ol className={styles.steps}>
        <li className={styles.row}>
          <Button disabled={busy} onClick={() => void save()}>
            Save the sweep
          </Button>
          <span className={styles.small}>
            A WAV file of {RATE / 1000} kHz. Play it through the board and record what comes out, at
            the same rate, from before it begins until after it ends; two or more recordings tell
            the noise.
          </span>
        </li>
        <li className={styles.row}>
          <WavUpload
            label="The loop-back …"
            disabled={busy}
            onFiles={(files) => void during(async () => setWire((await readAll(files))[0]))}
          />
          <span className={styles.small}>
            {wire
              ? `${wire.name}: taken out. It was recorded with the same player.`
              : 'A recording with a wire in the board’s place, begun in step with the others. Without it phase is not told.'}
          </span>
        </li>
        <li className={styles.row}>
          <WavUpload
            label="The recordings …"
            isMain
            disabled={busy}
            onFiles={(files) => void during(async () => take(await readAll(files)))}
          />
        </li>
      </ol>
      <NotTaken problem={problem} />
    </>
  );
}

const plain = ({ samples, rate }: NamedRecording): Recording => ({ samples, rate });

/** Every file or none. */
async function readAll(files: readonly File[]): Promise<NamedRecording[]> {
  if (files.length > MOST_FILES)
    throw new Error(`${files.length} files are more than the ${MOST_FILES} that are read at once.`);
  const all: NamedRecording[] = [];
  for (const file of files) all.push(await readRecording(file));
  return all;
}

function WavUpload({
  label,
  isMain = false,
  disabled,
  onFiles,
}: {
  label: string;
  isMain?: boolean;
  disabled: boolean;
  onFiles: (files: readonly File[]) => void;
}) {
  return (
    <Upload
      accept=".wav"
      multiple
      showUploadList={false}
      disabled={disabled}
      beforeUpload={(file, all) => {
        // Told once for every file: the last of them speaks for all.
        if (file === all[all.length - 1]) onFiles(all);
        return false;
      }}
    >
      <Button type={isMain ? 'primary' : 'default'} disabled={disabled}>
        {label}
      </Button>
    </Upload>
  );
}
