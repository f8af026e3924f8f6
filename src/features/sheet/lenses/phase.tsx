import { Segmented } from 'antd';
import { LevelOrPhase } from '../frequency-lens';
import { setUi, useUi } from '../ui-state';
import type { Lens, LensProps } from './lens';

const Picture = (props: LensProps) => <LevelOrPhase lens="phase" {...props} />;

function WrapSwitch() {
  const wrapped = useUi((s) => s.phaseWrapped);
  return (
    <Segmented<'on' | 'within'>
      size="small"
      aria-label="Phase"
      value={wrapped ? 'within' : 'on'}
      options={[
        { value: 'on', label: 'followed on' },
        { value: 'within', label: 'within ±180°' },
      ]}
      onChange={(value) => setUi({ phaseWrapped: value === 'within' })}
    />
  );
}

export const phase: Lens = {
  id: 'phase',
  title: 'Phase',
  about: 'How far each frequency is turned, followed on or within half a turn',
  overFrequency: true,
  banded: true,
  Extra: WrapSwitch,
  Picture,
};
