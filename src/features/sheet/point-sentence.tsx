'use client';

import { useState, type FormEvent } from 'react';
import { listenAt, nameNet } from '@/core/drawing/grow/change';
import { placesOf } from '@/core/sheet/places';
import type { Stage } from '@/core/sheet/schema';
import { WordCombo } from '@/ui/controls/word-combo';
import { attempt } from '../shell/tell';
import { redraw } from './actions';
import { setUi } from './ui-state';
import styles from './graft-sentence.module.css';

/** “Listen at …” and “Call … …”: what is done to a point alone. */
export function PointSentence({ stage, doing }: { stage: Stage; doing: 'listen' | 'name' }) {
  const places = placesOf(stage);
  const [net, setNet] = useState(places[0].net);
  const [name, setName] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const { place } = places.find((p) => p.net === net)!;
    const done = attempt(() =>
      redraw(stage.id, (d) =>
        doing === 'listen' ? listenAt(d, place) : nameNet(d, place, name.trim()),
      ),
    );
    if (done) setUi({ grafting: null });
  };
  return (
    <form
      className={styles.sentence}
      aria-label={doing === 'listen' ? 'Listen at a point' : 'Name a point'}
      onSubmit={submit}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') setUi({ grafting: null });
      }}
    >
      <p className={styles.words}>
        {doing === 'listen' ? 'Listen at ' : 'Call '}
        <WordCombo
          label="Point"
          options={places.map((p) => ({ value: p.net, word: p.name, aliases: p.aliases }))}
          value={net}
          onChange={setNet}
          autoFocus
        />
        {doing === 'name' && (
          <>
            {' by the name '}
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
      </p>
      <p className={styles.help}>
        Enter does it · Esc leaves
        <button type="submit" className="visually-hidden">
          Do it
        </button>
      </p>
    </form>
  );
}
