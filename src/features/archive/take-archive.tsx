import { Button, Checkbox, Popconfirm, Progress, Select } from 'antd';
import { FolderInput } from 'lucide-react';
import { useState, type DragEvent } from 'react';
import { ArchiveReader } from '@/core/archive/reader';
import { messageOf, ReedError } from '@/core/errors';
import { planFor, takeIn, type Choice, type Conflict, type Plan } from '@/store/archive-in';
import { storageProblem } from '@/store/problems';
import { leaveSheet } from '@/store/session-storage';
import { dateWords } from '@/ui/controls/date-words';
import { FileButton } from '@/ui/controls/file-button';
import { tell } from '../shell/tell';
import styles from './archive.module.css';

interface Opened {
  name: string;
  reader: ArchiveReader;
  plan: Plan;
}

/** An archive taken in: looked through, what differs decided on, and then all of it or nothing. */
export function TakeArchive() {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const open = async (file: File) => {
    setProblem(null);
    setOpened(null);
    setBusy(`${file.name} is being looked through …`);
    try {
      const reader = new ArchiveReader(new Uint8Array(await file.arrayBuffer()));
      setOpened({ name: file.name, reader, plan: await planFor(reader) });
    } catch (error) {
      setProblem(`${file.name}: ${whyOf(error)}`);
    }
    setBusy(null);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    const file = event.dataTransfer.files.item(0);
    if (file) void open(file);
  };
  return (
    <section
      className={styles.section}
      aria-labelledby="take-archive"
      onDragOver={(e) => e.preventDefault()}
      onDrop={onDrop}
    >
      <h2 id="take-archive">Take an archive in</h2>
      <p>Nothing changes before you have seen what is in it. Drop the file here, or choose it.</p>
      <div className={styles.row}>
        <FileButton
          icon={<FolderInput size={15} />}
          disabled={busy !== null}
          label="Archive to take in"
          accept=".zip,application/zip"
          onFiles={([file]) => void open(file)}
        >
          Open an archive
        </FileButton>
        {busy !== null && <span className={styles.soft}>{busy}</span>}
      </div>
      {problem !== null && (
        <p role="alert" className={styles.problem}>
          {problem}
        </p>
      )}
      {opened && (
        <Deciding
          key={opened.name}
          {...opened}
          onDone={() => setOpened(null)}
          onFailed={setProblem}
        />
      )}
    </section>
  );
}

const whyOf = (error: unknown): string =>
  error instanceof ReedError ? messageOf(error) : `It was not read: ${storageProblem(error)}.`;

const MINE: Choice = 'mine';

/** What is in it, what differs from here, and what is to be done about that. */
function Deciding({
  name,
  reader,
  plan,
  onDone,
  onFailed,
}: Opened & { onDone: () => void; onFailed: (why: string) => void }) {
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const [settings, setSettings] = useState(false);
  const [done, setDone] = useState<number | null>(null);
  const { fresh, same, conflicts } = plan;
  const { sheet = 0, take = 0, line = 0, picture = 0 } = reader.index.counts;
  const decide = (some: readonly Conflict[], choice: Choice) =>
    setChoices((before) => {
      const next = new Map(before);
      for (const { key, kind } of some)
        next.set(key, choice === 'both' && kind !== 'sheet' ? MINE : choice);
      return next;
    });
  const go = async (replace: boolean) => {
    setDone(0);
    try {
      await leaveSheet();
      await takeIn(reader, { replace, choices, settings: settings || replace }, setDone);
      tell(replace ? 'Everything is as it is in the archive.' : 'The archive is taken in.');
      onDone();
    } catch (error) {
      onFailed(`${name}: ${whyOf(error)} Everything here is as it was.`);
    }
    setDone(null);
  };
  return (
    <div className={styles.deciding} role="group" aria-label="What is in the archive">
      <p>
        <b>{name}</b>, made {dateWords(reader.index.madeAt, 'medium')}: {sheet} sheets, {take}{' '}
        takes, {line} lines of the book, {picture} pictures. {fresh} are new here, {same} are here
        already
        {conflicts.length > 0 && `, ${conflicts.length} are here and differ`}.
      </p>
      {conflicts.length > 0 && (
        <Conflicts conflicts={conflicts} choices={choices} onDecide={decide} />
      )}
      <p>
        <Checkbox checked={settings} onChange={(e) => setSettings(e.target.checked)}>
          Preferences and practice too
        </Checkbox>
      </p>
      <div className={styles.row}>
        <Button type="primary" disabled={done !== null} onClick={() => void go(false)}>
          Merge it with what is here
        </Button>
        <Popconfirm
          title="Everything that is here now goes."
          description="Only what is in the archive is there afterwards. Make an archive of what is here first."
          okText="Replace everything"
          cancelText="No"
          onConfirm={() => void go(true)}
        >
          <Button disabled={done !== null}>Put it in the place of everything here</Button>
        </Popconfirm>
        <Button type="text" disabled={done !== null} onClick={onDone}>
          Leave it
        </Button>
      </div>
      {done !== null && (
        <Progress percent={Math.round(100 * done)} size="small" aria-label="How much is taken in" />
      )}
    </div>
  );
}

const KIND_NOUNS: Readonly<Record<Conflict['kind'], string>> = {
  sheet: 'sheet',
  takes: 'take',
  drivers: 'driver',
  drawer: 'part of the drawer',
};

const CHOICES: readonly { value: Choice; label: string }[] = [
  { value: 'mine', label: 'Keep mine' },
  { value: 'theirs', label: 'Take the archive’s' },
  { value: 'both', label: 'Keep both' },
];

function Conflicts({
  conflicts,
  choices,
  onDecide,
}: {
  conflicts: readonly Conflict[];
  choices: ReadonlyMap<string, Choice>;
  onDecide: (some: readonly Conflict[], choice: Choice) => void;
}) {
  return (
    <div className={styles.conflicts}>
      <p className={styles.row}>
        <span>All of them:</span>
        {CHOICES.map(({ value, label }) => (
          <Button key={value} size="small" onClick={() => onDecide(conflicts, value)}>
            {label}
          </Button>
        ))}
      </p>
      <ul aria-label="What differs">
        {conflicts.map((conflict) => {
          const { key, kind, name, hereAt, thereAt } = conflict;
          return (
            <li key={key}>
              <span>
                <b>{name || key}</b> <i>{KIND_NOUNS[kind]}</i>
                {hereAt !== null && thereAt !== null && (
                  <em>
                    here {dateWords(hereAt, 'short')}, there {dateWords(thereAt, 'short')}
                  </em>
                )}
              </span>
              <Select<Choice>
                size="small"
                aria-label={`What is done about ${name || key}`}
                value={choices.get(key) ?? MINE}
                options={CHOICES.filter((c) => c.value !== 'both' || kind === 'sheet')}
                onChange={(choice) => onDecide([conflict], choice)}
              />
            </li>
          );
        })}
      </ul>
    </div>
  );
}
