'use client';

import { Button } from 'antd';
import { useEffect, useMemo, useRef, useState, type FormEvent, type KeyboardEvent } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { Ends, Place } from '@/core/drawing/grow/change';
import { PART_KINDS, partKindOf } from '@/core/parts';
import type { PartKind } from '@/core/parts/part-kind';
import { mainQuantity } from '@/core/parts/quantities';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { freeId, type Graft, type NewPart } from '@/core/sheet/graft';
import { placesOf, type NamedPlace } from '@/core/sheet/places';
import type { Stage } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { WordCombo, type WordOption } from '@/ui/controls/word-combo';
import { graftStage } from './actions/wiring';
import { setUi, type Grafting } from './ui-state';
import styles from './graft-sentence.module.css';

const GROUND = 'ground';
const OPEN = 'open';

const KINDS: readonly WordOption[] = PART_KINDS.map(({ kind, noun, letter }) => ({
  value: kind,
  word: noun,
  aliases: [kind, letter],
}));

interface SentenceProps {
  stage: Stage;
  grafting: Grafting;
  /** What the parts of the stage are called on paper. */
  names: ReadonlyMap<string, string>;
}

/**
 * One sentence that changes the circuit: “Across R2 put a capacitor of 1n, called C3”. Its words are
 * choices; Tab moves between them, Enter does it and goes on from there, Escape leaves.
 */
export function GraftSentence({ stage, grafting, names }: SentenceProps) {
  const { mark } = usePreferences();
  const form = useRef<HTMLFormElement>(null);
  const places = useMemo(() => placesOf(stage), [stage]);
  const [kindId, setKindId] = useState('resistor');
  const [from, setFrom] = useState(() => startOf(grafting, places));
  const [others, setOthers] = useState<Readonly<Record<string, string>>>({});
  const [value, setValue] = useState('');
  const [id, setId] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const kind = partKindOf(kindId);
  const main = mainQuantity(kind);
  const usedId = id.trim() || freeId(kindId, new Set(drawnParts(stage).map((p) => p.id)));
  const points = pointOptions(places);
  const pins = kind.symbol.pins.filter((p) => !p.optional);
  const place = (word: string): Place => places.find((p) => p.net === word)!.place;

  const graft = (): Graft => {
    const added: NewPart = { kind: kindId, id: usedId };
    if (main && value.trim() !== '') added.value = parseQuantity(value, main.quantity, mark);
    const { part } = grafting;
    if (grafting.do === 'across' || grafting.do === 'in-line' || grafting.do === 'swap')
      return { do: grafting.do, part: part!, new: added };
    const ends: Record<string, Ends[string]> = {};
    pins.forEach((pin, i) => {
      const word = i === 0 ? from : (others[pin.name] ?? OPEN);
      ends[pin.name] = word === GROUND || word === OPEN ? word : place(word);
    });
    return { do: 'put', ends, new: added };
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    try {
      const next = graftStage(stage.id, graft(), nextPlace(pins, others, usedId));
      setProblem(null);
      setValue('');
      setId('');
      setOthers({});
      if (grafting.do !== 'put') setUi({ grafting: null });
      else {
        setFrom(next ?? from);
        // The sentence goes on, also where it had begun by itself on an empty circuit.
        setUi({ grafting });
        form.current?.querySelectorAll<HTMLInputElement>('[role="combobox"]')[1]?.focus();
      }
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setProblem(messageOf(error));
    }
  };
  const onKey = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Escape') setUi({ grafting: null });
  };
  useEffect(() => {
    const point = places.find((p) => p.net === from);
    setUi({ markedPlace: grafting.do === 'put' && point ? point.at : null });
    return () => setUi({ markedPlace: null });
  }, [from, places, grafting.do]);
  const partName = grafting.part === undefined ? '' : (names.get(grafting.part) ?? grafting.part);
  return (
    <form
      ref={form}
      className={styles.sentence}
      aria-label="Change the circuit"
      onSubmit={submit}
      onKeyDown={onKey}
    >
      <div className={styles.words}>
        {grafting.do === 'across' && (
          <>
            Across <b>{partName}</b> put{' '}
          </>
        )}
        {grafting.do === 'in-line' && (
          <>
            In line with <b>{partName}</b> put{' '}
          </>
        )}
        {grafting.do === 'swap' && (
          <>
            For <b>{partName}</b> put{' '}
          </>
        )}
        {grafting.do === 'put' && (
          <>
            From <WordCombo label="From" options={points} value={from} onChange={setFrom} />
            {pins.length > 2 && ` (its ${pins[0].name})`} put{' '}
          </>
        )}
        {kind.article}{' '}
        <WordCombo
          label="Kind of part"
          options={KINDS}
          value={kindId}
          onChange={(next) => {
            setKindId(next);
            setOthers({});
            setValue('');
          }}
          autoFocus
        />
        {main && (
          <>
            {' of '}
            <input
              className={styles.value}
              aria-label="Value"
              value={value}
              maxLength={40}
              placeholder={formatQuantity(main.usual, main.quantity, { mark })}
              autoComplete="off"
              spellCheck={false}
              onChange={(e) => setValue(e.target.value)}
              onFocus={(e) => e.target.select()}
            />
          </>
        )}
        {grafting.do === 'put' &&
          pins.slice(1).map((pin) => (
            <span key={pin.name}>
              {pins.length > 2 ? `, ${pin.name} to ` : ' to '}
              <WordCombo
                label={pins.length > 2 ? `To (${pin.name})` : 'To'}
                options={[
                  ...points,
                  { value: GROUND, word: 'ground', aliases: ['0', 'common'] },
                  { value: OPEN, word: 'a new point', aliases: ['new', 'open'] },
                ]}
                value={others[pin.name] ?? OPEN}
                onChange={(next) => setOthers({ ...others, [pin.name]: next })}
              />
            </span>
          ))}
        {', called '}
        <input
          className={styles.id}
          aria-label="Its name"
          value={id}
          maxLength={36}
          placeholder={usedId}
          autoComplete="off"
          spellCheck={false}
          onChange={(e) => setId(e.target.value)}
        />
      </div>
      <p className={styles.help}>
        {problem ? (
          <span role="alert" className={styles.problem}>
            {problem}
          </span>
        ) : (
          'Enter puts it in · Tab next word · ↑ ↓ another · Esc leaves'
        )}
        <span className={styles.buttons}>
          <Button size="small" type="text" onClick={() => setUi({ grafting: null })}>
            Leave
          </Button>
          <Button size="small" type="primary" htmlType="submit">
            Put it in
          </Button>
        </span>
      </p>
    </form>
  );
}

/** Where a new sentence begins: at the part that is chosen, or at the input. */
function startOf({ part }: Grafting, places: readonly NamedPlace[]): string {
  const ofPart = places.find((p) => p.aliases.some((a) => a.startsWith(`${part}.`)));
  return (ofPart ?? places[0]).net;
}

const pointOptions = (places: readonly NamedPlace[]): WordOption[] =>
  places.map((p) => ({ value: p.net, word: p.name, aliases: p.aliases }));

/** The pin that the next part goes on from: the last that was left open, or the first. */
function nextPlace(
  pins: PartKind['symbol']['pins'],
  others: Readonly<Record<string, string>>,
  id: string,
): { part: string; pin: string } {
  const open = pins.slice(1).find((p) => (others[p.name] ?? OPEN) === OPEN);
  return { part: id, pin: (open ?? pins[0]).name };
}
