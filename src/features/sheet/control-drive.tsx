import { lazy, useState } from 'react';
import { cellOf } from '@/core/cells';
import { isConverted } from '@/core/sheet/controls';
import type { Control, Sheet } from '@/core/sheet/schema';
import { CANCELS_PPM, USUAL_CONVERTER, type Converter } from '@/core/synth/converter';
import { ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { FormPopover } from '../shell/form-popover';
import { setControlLaw, setConverter, type LawName } from './actions/control-law';
import { ChoiceWord } from './choice-word';
import styles from './ask-sentence.module.css';

const TableForm = lazy(() =>
  import('./control-table-form').then((m) => ({ default: m.ControlTableForm })),
);

const LAWS: { value: LawName; word: string; line: string }[] = [
  { value: 'octaves', word: 'volts, an octave each', line: 'Volts, an octave each' },
  { value: 'proportion', word: 'a current in proportion', line: 'A current, in proportion' },
  { value: 'table', word: 'a table', line: 'A table of your own' },
];

/** Ways in which the drift of an exponential pair is met: by what the divider’s resistor does in the warm. */
const DIVIDERS = [
  { value: 0, word: 'nothing', line: 'Nothing: an ordinary resistor' },
  {
    value: USUAL_CONVERTER.ppmPerKelvin,
    word: 'a resistor of +3300 ppm/K',
    line: 'A resistor of +3300 ppm/K that touches the pair',
  },
  {
    value: Math.round(CANCELS_PPM),
    word: 'a resistor of +3332 ppm/K',
    line: 'A resistor that follows the pair exactly, +3332 ppm/K',
  },
];

/** What drives a control: a sentence whose marked words are edited where they stand. */
export function ControlDrive({ sheet, control }: { sheet: Sheet; control: Control }) {
  if (control.is === 'turn' || control.for !== 'cut-off' || hasOwnLaw(sheet, control)) return null;
  const law = lawOf(control);
  return (
    <span>
      driven by{' '}
      <ChoiceWord
        label="Law of the control"
        value={law}
        choices={LAWS}
        onChoose={(next) => setControlLaw(control.id, next)}
      />
      {law === 'table' && <TableWord sheet={sheet} control={control} />}
      {isConverted(control) && <ConverterWords control={control} />}
    </span>
  );
}

/** Whether what a control drives bends it by a law of its own. */
const hasOwnLaw = ({ ways: [way] }: Sheet, { moves: [move] }: Control): boolean =>
  cellOf(way.stages.find((s) => s.id === move.stage)?.cell)?.ownLaw === true;

function lawOf({ is, moves }: Control): LawName {
  if (moves.some((m) => m.law === 'by table')) return 'table';
  return is === 'amps' ? 'proportion' : 'octaves';
}

function TableWord({ sheet, control }: { sheet: Sheet; control: Control }) {
  const [open, setOpen] = useState(false);
  const lines = (control.moves[0].table?.length ?? 0) + 2;
  return (
    <>
      {' of '}
      <FormPopover
        open={open}
        onOpenChange={setOpen}
        content={<TableForm sheet={sheet} control={control} done={() => setOpen(false)} />}
      >
        <button type="button" className={styles.word}>
          {lines} places
        </button>
      </FormPopover>
    </>
  );
}

function ConverterWords({ control }: { control: Control }) {
  const mark = usePreferences((p) => p.mark);
  const { converter } = control;
  const change = (next: Partial<Converter>) =>
    setConverter(control.id, { ...USUAL_CONVERTER, ...converter, ...next });
  return (
    <>
      {' through '}
      <ChoiceWord
        label="Converter"
        value={converter ? 'pair' : 'ideal'}
        choices={[
          { value: 'ideal', word: 'an ideal converter' },
          {
            value: 'pair',
            word: 'a pair of transistors',
            line: 'A pair of transistors in one case',
          },
        ]}
        onChoose={(next) => setConverter(control.id, next === 'pair' ? USUAL_CONVERTER : undefined)}
      />
      {converter && (
        <>
          {' with '}
          <EditableQuantity
            label="Ohms in its emitter"
            kind="ohms"
            value={converter.ohms}
            shown={formatQuantity(converter.ohms, 'ohms', { digits: 3, unit: true, mark })}
            mark={mark}
            onCommit={(ohms) => {
              if (!(ohms! >= 0 && ohms! <= 1000))
                throw new ReedError('range', 'It can have 0 to 1000 Ω in its emitter.');
              change({ ohms: ohms! });
            }}
          />
          {' in its emitter, its drift met by '}
          <ChoiceWord
            label="What meets its drift"
            value={converter.ppmPerKelvin}
            choices={dividers(converter.ppmPerKelvin, mark)}
            onChoose={(ppmPerKelvin) => change({ ppmPerKelvin })}
          />
          {', from a reference that '}
          <ChoiceWord
            label="Its reference"
            value={converter.warmReference ? 'warm' : 'steady'}
            choices={[
              { value: 'steady', word: 'is steady' },
              {
                value: 'warm',
                word: 'grows with warmth',
                line: 'Grows as the temperature, as transconductance falls',
              },
            ]}
            onChoose={(is) => change({ warmReference: is === 'warm' })}
          />
        </>
      )}
    </>
  );
}

/** The usual ways, and whatever else a document says. */
function dividers(ppm: number, mark: 'point' | 'comma') {
  if (DIVIDERS.some((d) => d.value === ppm)) return DIVIDERS;
  return [...DIVIDERS, { value: ppm, word: `a resistor of +${formatFixed(ppm, 0, mark)} ppm/K` }];
}
