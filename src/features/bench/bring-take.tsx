import { Button, Input, Modal, Upload } from 'antd';
import { useState } from 'react';
import { takeOfImpulse } from '@/core/bench/impulse-take';
import type { Meter } from '@/core/bench/meters';
import type { Point } from '@/core/bench/points';
import { ReedError, messageOf } from '@/core/errors';
import { readTakeTable, takeTable, type MeasuredCurve } from '@/core/library/take-table';
import type { Sheet } from '@/core/sheet/schema';
import type { BroughtTake } from './bench-actions';
import { MeterChoice } from './meter-choice';
import { PointChoice } from './point-choice';
import { readRecording } from './sweep/read-recording';
import styles from './bench.module.css';

const MOST_BYTES = 8e6;
const LEVELS_LIKE = '100, -0.1\n1000, -0.2\n3400, -3.1\n5000, -13.8\n8000, -30.2';
const OHMS_LIKE = '100, 16100\n1000, 10200\n3400, 9050\n5000, 8700\n8000, 8400';

interface BringTakeProps {
  /** Whose nets can be measured; over its picture a recording is read. */
  sheet: Sheet;
  onTake: (name: string, take: BroughtTake) => void;
}

/** Brings a take in from a table, or from what is typed: spot readings, one a line. */
export function BringTake({ sheet, onTake }: BringTakeProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Bring in a take</Button>
      {open && (
        <TakeWindow
          sheet={sheet}
          onTake={(name, curve) => {
            setOpen(false);
            onTake(name, curve);
          }}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

function TakeWindow({ sheet, onTake, onClose }: BringTakeProps & { onClose: () => void }) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const [meter, setMeter] = useState<Meter | undefined>(undefined);
  const [of, setOf] = useState<Point>(undefined);
  const isOhms = of?.is === 'impedance';
  const [problem, setProblem] = useState<string | null>(null);
  const read = (from: string): MeasuredCurve | null => {
    try {
      const curve = readTakeTable(from, of?.is);
      setProblem(null);
      return curve;
    } catch (error) {
      setProblem(error instanceof ReedError ? messageOf(error) : 'The file cannot be read.');
      return null;
    }
  };
  /** A table as it stands; of a recorded impulse response, the table of its levels. */
  const contentOf = async (file: File): Promise<string | null> => {
    try {
      if (isOhms && /\.wav$/i.test(file.name))
        throw new Error('A recording tells levels, and no ohms: an impedance comes as a table.');
      if (!/\.wav$/i.test(file.name)) {
        if (file.size > MOST_BYTES) throw new Error(`“${file.name}” is far larger than any take.`);
        return await file.text();
      }
      return takeTable(takeOfImpulse(sheet.view, await readRecording(file)));
    } catch (error) {
      setProblem(messageOf(error));
      return null;
    }
  };
  const openFile = async (file: File) => {
    const content = await contentOf(file);
    if (content === null || !read(content)) return;
    setText(content);
    if (name === '') setName(file.name.replace(/\.[^.]*$/, ''));
  };
  return (
    <Modal
      open
      title="Bring in a take"
      okText="Take it"
      okButtonProps={{ disabled: text.trim() === '' }}
      onCancel={onClose}
      onOk={() => {
        const curve = read(text);
        if (curve)
          onTake(name.trim() === '' ? 'take' : name.trim(), {
            ...curve,
            ...(meter && !isOhms ? { meter } : {}),
            ...(of ? { of } : {}),
          });
      }}
    >
      <p>
        {isOhms
          ? 'A table of frequency, ohms and perhaps phase in degrees, or a Touchstone file of one port: what the source sees of the whole board, the source itself taken off.'
          : 'A table of frequency, level in dB and perhaps phase in degrees, at whatever level the source stood. Spot readings typed by hand do as well, one a line; or a WAV file that holds an impulse response.'}
      </p>
      <div className={styles.form}>
        <label>
          What was measured
          <PointChoice
            sheet={sheet}
            of={of}
            withImpedance
            onPoint={(next) => {
              setOf(next);
              setProblem(null);
            }}
          />
        </label>
        <Upload
          accept=".txt,.csv,.tsv,.frd,.zma,.s1p,.dat,.wav"
          showUploadList={false}
          beforeUpload={(file) => {
            void openFile(file);
            return false;
          }}
        >
          <Button size="small">From a file …</Button>
        </Upload>
        <Input
          aria-label="Name of the take"
          placeholder="Name of the take"
          value={name}
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
        />
        {!isOhms && (
          <label>
            Measured with
            <MeterChoice meter={meter} onMeter={setMeter} />
          </label>
        )}
        <Input.TextArea
          aria-label="Readings"
          className={styles.readings}
          rows={9}
          value={text}
          placeholder={isOhms ? OHMS_LIKE : LEVELS_LIKE}
          onChange={(e) => {
            setText(e.target.value);
            setProblem(null);
          }}
        />
        {problem !== null && (
          <p role="alert" className={styles.bad}>
            {problem} Nothing was taken.
          </p>
        )}
      </div>
    </Modal>
  );
}
