import { Button } from 'antd';
import { useEffect } from 'react';
import type { Control } from '@/core/sheet/schema';
import { attempt } from '../shell/tell';
import { setControlMidi } from '../sheet/actions/controls';
import { askForMidi, learn, useMidi } from './midi';
import styles from './midi-form.module.css';

const WORDS = {
  off: 'The browser is asked for what is plugged in.',
  asking: 'The browser asks you whether this page may hear your MIDI controller.',
  missing:
    'This browser has no MIDI: its makers left it out. The keys and the sliders do the same; a browser that has it lets a controller’s knobs move them too.',
  refused:
    'The browser keeps MIDI from this page. Allow it in the page’s settings, beside its address, and ask again.',
} as const;

/** Which knob of a MIDI controller moves which control. */
export function MidiForm({ controls }: { controls: readonly Control[] }) {
  const { is, inputs, learning } = useMidi();
  useEffect(() => {
    if (useMidi.getState().is !== 'on') void askForMidi();
    return () => learn(null);
  }, []);
  return (
    <div className={styles.form}>
      {is !== 'on' && <p role="status">{WORDS[is]}</p>}
      {is === 'refused' && (
        <Button size="small" onClick={() => void askForMidi()}>
          Ask again
        </Button>
      )}
      {is === 'on' && (
        <>
          <p role="status">
            {inputs.length === 0
              ? 'Nothing is plugged in: it is taken as soon as it is.'
              : `Heard: ${inputs.join(', ')}.`}
          </p>
          <ul>
            {controls.map(({ id, name, midi }) => (
              <li key={id}>
                <b>{name}</b>{' '}
                {learning === id ? (
                  'turn a knob on the controller …'
                ) : (
                  <>
                    <span className="mono">{midi === undefined ? 'no knob' : `knob ${midi}`}</span>{' '}
                    <Button size="small" onClick={() => learn(id)}>
                      {midi === undefined ? 'Take a knob' : 'Take another'}
                    </Button>
                    {midi !== undefined && (
                      <Button
                        size="small"
                        aria-label={`Let the knob of ${name} go`}
                        onClick={() => attempt(() => setControlMidi(id, undefined))}
                      >
                        Let go
                      </Button>
                    )}
                  </>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
