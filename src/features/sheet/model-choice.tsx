'use client';

import { Dropdown } from 'antd';
import { partKindOf } from '@/core/parts';
import type { NamedModel } from '@/core/parts/part-kind';
import type { PartChoices, Stage } from '@/core/sheet/schema';
import { drawnParts, heardOf, outputsOf } from '@/core/sheet/stage';
import { useSession } from '@/store/sheet-session';
import { attempt, tell } from '../shell/tell';
import { setHeard } from './actions/stages';
import { changeParts, setModel } from './actions/parts';
import { DeviceMenu } from './device-menu';
import { swapped } from './swap-model';
import styles from './circuit-panel.module.css';

interface ModelChoiceProps {
  stage: Stage;
  part: string;
  name: string;
  open: boolean;
  onOpen: (open: boolean) => void;
}

/** Which device a part is, chosen for it alone. */
export function ModelChoice({ stage, part, name, open, onOpen }: ModelChoiceProps) {
  const drawn = drawnParts(stage).find((p) => p.id === part);
  const kind = drawn && partKindOf(drawn.kind);
  const sheetOpAmp = useSession((s) => s.content?.parts.opAmp);
  if (!kind?.models || kind.models.length === 0) return null;
  const own = stage.parts[part]?.model;
  const isOpAmp = kind.kind === 'op-amp';
  const common = isOpAmp && sheetOpAmp ? sheetOpAmp : kind.models[0];
  const usual = isOpAmp ? 'as the sheet’s op-amps' : common.name;
  const shown = own?.name ?? usual;
  return (
    <DeviceMenu
      kind={kind}
      device={own ?? common}
      usual={{ name: usual, chosen: own === undefined }}
      open={open}
      onOpen={onOpen}
      label={`${name} is: ${shown}`}
      text={`${name}: ${shown}`}
      title={`Figures of ${name}`}
      onChoose={(model) =>
        swapped(
          `${name} as ${shown}`,
          () => setModel(stage.id, part, model),
          `${name} is now: ${model?.name ?? usual}`,
        )
      }
    />
  );
}

/** Which op-amps the sheet has, where a part is not one of its own. */
export function OpAmpChoice({ opAmp }: { opAmp: NamedModel }) {
  return (
    <DeviceMenu
      kind={partKindOf('op-amp')}
      device={opAmp}
      label={`Op-amp: ${opAmp.name}`}
      text={opAmp.name}
      title="Figures of the sheet’s op-amps"
      onChoose={(chosen) =>
        chosen &&
        swapped(
          opAmp.name,
          () => changeParts({ opAmp: structuredClone(chosen) as PartChoices['opAmp'] }),
          `Op-amps are now: ${chosen.name}`,
        )
      }
    />
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
