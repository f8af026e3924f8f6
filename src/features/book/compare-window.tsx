import { Button, Modal, Select } from 'antd';
import { ArrowLeftRight, FolderInput } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { messageOf } from '@/core/errors';
import type { JobInput } from '@/core/jobs';
import type { Sheet } from '@/core/sheet/schema';
import { FileButton } from '@/ui/controls/file-button';
import { useJob } from '../bench/use-job';
import { refuse } from '../shell/tell';
import { statesOf, stateOfFile, type ComparedState } from './compare-states';
import { DifferencesView } from './differences-view';
import styles from './book.module.css';

interface CompareWindowProps {
  sheet: Sheet;
  onClose: () => void;
}

/** Any two states of a sheet beside each other, in words, numbers and curves. */
export function CompareWindow({ sheet, onClose }: CompareWindowProps) {
  const [states, setStates] = useState<ComparedState[]>([]);
  const [files, setFiles] = useState<ComparedState[]>([]);
  const [keys, setKeys] = useState<readonly [string | null, string]>([null, 'today']);
  useEffect(() => {
    let here = true;
    statesOf(sheet)
      .then((found) => here && setStates(found))
      .catch((error: unknown) => refuse(messageOf(error)));
    return () => {
      here = false;
    };
  }, [sheet]);
  const all = useMemo(() => [...files, ...states], [files, states]);
  // Where nothing is chosen, against what was kept last, or what stood before the last edits.
  const usual =
    states.findLast((s) => s.group === 'Keeps') ?? states.find((s) => s.key.startsWith('before'));
  const first = all.find((s) => s.key === keys[0]) ?? usual;
  const second = all.find((s) => s.key === keys[1]);
  const bring = async (file: File) => {
    try {
      const state = stateOfFile(file.name, await file.text());
      setFiles((before) => [state, ...before.filter((s) => s.key !== state.key)]);
      setKeys(([, after]) => [state.key, after]);
    } catch (error) {
      refuse(`${file.name}: ${messageOf(error)}`);
    }
  };
  return (
    <Modal open onCancel={onClose} footer={null} width={920} title="Two states beside each other">
      <div className={styles.choice}>
        <StateSelect
          label="The one"
          states={all}
          value={first?.key}
          onChange={(key) => setKeys(([, after]) => [key, after])}
        />
        <Button
          type="text"
          aria-label="The other way round"
          icon={<ArrowLeftRight size={16} />}
          disabled={!first || !second}
          onClick={() => setKeys([second!.key, first!.key])}
        />
        <StateSelect
          label="The other"
          states={all}
          value={second?.key}
          onChange={(key) => setKeys([first?.key ?? null, key])}
        />
        <FileButton
          icon={<FolderInput size={15} />}
          label="Sheet file to compare with"
          accept=".json,application/json"
          onFiles={([file]) => void bring(file)}
        >
          A file
        </FileButton>
      </div>
      {first && second ? (
        <Both first={first} second={second} />
      ) : (
        <p className={styles.soft}>
          {states.length > 0 &&
            'There is one state yet. Keep it, change something, or bring a file, and compare then.'}
        </p>
      )}
    </Modal>
  );
}

function StateSelect({
  label,
  states,
  value,
  onChange,
}: {
  label: string;
  states: readonly ComparedState[];
  value: string | undefined;
  onChange: (key: string) => void;
}) {
  const options = useMemo(
    () =>
      [...new Set(states.map((s) => s.group))].map((group) => ({
        label: group,
        options: states
          .filter((s) => s.group === group)
          .map(({ key, name }) => ({ value: key, label: name, title: name })),
      })),
    [states],
  );
  return (
    <Select
      className={styles.state}
      aria-label={label}
      showSearch={{ optionFilterProp: 'label' }}
      value={value}
      options={options}
      onChange={onChange}
    />
  );
}

function Both({ first, second }: { first: ComparedState; second: ComparedState }) {
  const [input, setInput] = useState<(JobInput<'differences'> & { of: string }) | null>(null);
  const [unread, setUnread] = useState<{ of: string; why: string } | null>(null);
  const of = `${first.key}\n${second.key}`;
  useEffect(() => {
    let here = true;
    Promise.all([first.load(), second.load()])
      .then(([before, after]) => here && setInput({ before, after, of }))
      .catch((error: unknown) => here && setUnread({ of, why: messageOf(error) }));
    return () => {
      here = false;
    };
  }, [first, second, of]);
  const asked = input?.of === of ? input : null;
  const { result, problem } = useJob('differences', asked);
  const names = useMemo(() => [first.name, second.name], [first, second]);
  const why = problem ?? (unread?.of === of ? unread.why : null);
  if (why !== null)
    return (
      <p role="alert" className={styles.problem}>
        {why}
      </p>
    );
  return result && asked ? (
    <div className={styles.both}>
      <DifferencesView differences={result} view={asked.after.view} names={names} />
    </div>
  ) : (
    <p className={styles.soft}>Both are being worked out …</p>
  );
}
