import type { WebMidi as Library } from 'webmidi';
import { create } from 'zustand';
import { attempt } from '../shell/tell';
import { useSession } from '@/store/sheet-session';
import { setControl, setControlMidi } from '../sheet/actions/controls';

type Midi = typeof Library;

interface MidiState {
  /** Not asked for yet, being asked for, there, not in this browser, or refused. */
  is: 'off' | 'asking' | 'on' | 'missing' | 'refused';
  /** Names of what is plugged in. */
  inputs: readonly string[];
  /** The control that takes the next knob that is turned. */
  learning: string | null;
}

export const useMidi = create<MidiState>(() => ({ is: 'off', inputs: [], learning: null }));

/** Who plays the notes of a MIDI keyboard, where someone listens. */
type Player = { press: (semitones: number) => void; release: (semitones: number) => void };
let player: Player | null = null;
export const playNotesBy = (who: Player | null): void => {
  player = who;
};

/** Of the note that the keyboard on the screen begins with. */
const LOWEST_NOTE = 48;

/** Ask the browser for what is plugged in. What it answers stands in the store. */
export async function askForMidi(): Promise<void> {
  if (typeof navigator.requestMIDIAccess !== 'function') {
    useMidi.setState({ is: 'missing' });
    return;
  }
  useMidi.setState({ is: 'asking' });
  const { WebMidi } = await import('webmidi');
  try {
    await WebMidi.enable();
  } catch {
    useMidi.setState({ is: 'refused' });
    return;
  }
  const take = () => listenTo(WebMidi);
  WebMidi.addListener('portschanged', take);
  take();
}

function listenTo({ inputs }: Midi): void {
  for (const input of inputs) {
    input.removeListener();
    input.addListener('controlchange', ({ controller, rawValue }) =>
      knobTurned(controller.number, (rawValue ?? 0) / 127),
    );
    input.addListener('noteon', ({ note }) => player?.press(note.number - LOWEST_NOTE));
    input.addListener('noteoff', ({ note }) => player?.release(note.number - LOWEST_NOTE));
  }
  useMidi.setState({ is: 'on', inputs: inputs.map((i) => i.name) });
}

/** A knob of the controller stands at a place, 0 to 1. */
export function knobTurned(knob: number, at: number): void {
  const { learning } = useMidi.getState();
  if (learning !== null) {
    useMidi.setState({ learning: null });
    attempt(() => setControlMidi(learning, knob));
  }
  const controls = useSession.getState().content?.controls ?? [];
  for (const { id, midi } of controls)
    if (midi === knob) attempt(() => setControl(id, Number(at.toFixed(4))), 'control');
}

export const learn = (control: string | null): void => useMidi.setState({ learning: control });
