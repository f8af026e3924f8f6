'use client';

import { Dropdown } from 'antd';
import { partKindOf } from '@/core/parts';
import type { Stage } from '@/core/sheet/schema';
import { drawnParts, heardOf, outputsOf } from '@/core/sheet/stage';
import { attempt, tell } from '../shell/tell';
import { setHeard } from './actions/stages';
import { setModel } from './actions/parts';
import { swapped } from './swap-model';
import styles from './circuit-panel.module.css';

interface ModelChoiceProps {
  stage: Stage;
  part: string;
  name: string;
  open: boolean;
  onOpen: (open: boolean) => void;
}

const USUAL = 'usual';

/** Which device a part is, chosen for it alone. */
export function ModelChoice({ stage, part, name, open, onOpen }: ModelChoiceProps) {
  const drawn = drawnParts(stage).find((p) => p.id === part);
  const kind = drawn && partKindOf(drawn.kind);
  if (!kind?.models || kind.models.length === 0) return null;
  const own = stage.parts[part]?.model;
  const usual = kind.kind === 'op-amp' ? 'as the sheet’s op-amps' : kind.models[0].name;
  const shown = own?.name ?? usual;
  return (
    <Dropdown
      trigger={['click']}
      open={open}
      onOpenChange={onOpen}
      menu={{
        selectedKeys: [own?.name ?? USUAL],
        items: [
          { key: USUAL, label: usual },
          ...kind.models
            .slice(kind.kind === 'op-amp' ? 0 : 1)
            .map((m) => ({ key: m.name, label: m.name })),
        ],
        onClick: ({ key }) => {
          const model = kind.models!.find((m) => m.name === key);
          swapped(
            `${name} as ${shown}`,
            () => setModel(stage.id, part, key === USUAL ? undefined : model),
            `${name} is now: ${model?.name ?? usual}`,
          );
        },
      }}
    >
      <button type="button" className={styles.opAmp} aria-label={`${name} is: ${shown}`}>
        {name}: {shown}
      </button>
    </Dropdown>
  );
}

/** Which output of a stage is passed on, where it has several. */
export function HeardChoice({ stage }: { stage: Stage }) {
  const outputs = outputsOf(stage);
  if (outputs.length < 2) return null;
  const heard = heardOf(stage).name;
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        selectedKeys: [heard],
        items: outputs.map(({ name }) => ({ key: name, label: name })),
        onClick: ({ key }) => {
          if (attempt(() => setHeard(stage.id, key))) tell(`Passed on now: ${key}`);
        },
      }}
    >
      <button type="button" className={styles.opAmp} aria-label={`Passed on: ${heard}`}>
        passes on {heard}
      </button>
    </Dropdown>
  );
}
