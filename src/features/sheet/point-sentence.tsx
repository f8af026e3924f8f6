'use client';

import { useState, type FormEvent } from 'react';
import type { Drawing } from '@/core/drawing/drawing';
import { listenAt, markOutput, nameNet, type Place } from '@/core/drawing/grow/change';
import { placesOf } from '@/core/sheet/places';
import type { Stage } from '@/core/sheet/schema';
import { WordCombo } from '@/ui/controls/word-combo';
import { attempt } from '../shell/tell';
import { redraw } from './actions/wiring';
import { setUi, type PointDoing } from './ui-state';
import styles from './graft-sentence.module.css';

interface Doing {
  label: string;
  /** What stands before the point, and between it and a name, where one is given. */
  verb: string;
  by?: string;
  change: (drawing: Drawing, place: Place, name: string) => Drawing;
  help?: string;
}

const DOINGS: Readonly<Record<PointDoing, Doing>> = {
  listen: { label: 'Listen at a point', verb: 'Listen at ', change: listenAt },
  name: {
    label: 'Name a point',
    verb: 'Call ',
    by: ' by the name ',
    change: nameNet,
    help: 'no name takes it away',
  },
  output: {
    label: 'Mark an output',
    verb: 'Mark ',
    by: ' as an output called ',
    change: markOutput,
    help: 'no name takes the mark away',
  },
};

/** “Listen at …”, “Call … …”, “Mark … as an output …”: what is done to a point alone. */
export function PointSentence({ stage, doing }: { stage: Stage; doing: PointDoing }) {
  const { label, verb, by, change, help } = DOINGS[doing];
  const places = placesOf(stage);
  const [net, setNet] = useState(places[0].net);
  const [name, setName] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const { place } = places.find((p) => p.net === net)!;
    const done = attempt(() => redraw(stage.id, (d) => change(d, place, name.trim())));
    if (done) setUi({ grafting: null });
  };
  return (
    <form
      className={styles.sentence}
      aria-label={label}
      onSubmit={submit}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') setUi({ grafting: null });
      }}
    >
      <div className={styles.words}>
        {verb}
        <WordCombo
          label="Point"
          options={places.map((p) => ({ value: p.net, word: p.name, aliases: p.aliases }))}
          value={net}
          onChange={setNet}
          autoFocus
        />
        {by && (
          <>
            {by}
            <input
              className={styles.id}
              aria-label="Name of the point"
              value={name}
              maxLength={36}
              autoComplete="off"
              onChange={(e) => setName(e.target.value)}
            />
          </>
        )}
      </div>
      <p className={styles.help}>
        Enter does it · Esc leaves{help && ` · ${help}`}
        <button type="submit" className="visually-hidden">
          Do it
        </button>
      </p>
    </form>
  );
}
