import { create } from 'zustand';
import type { Side } from '@/core/listen/audition';
import type { Program } from '@/core/listen/program';
import { engine } from '@/workers/engine';
import type { HeardSheet, PlayerState, ToPlayer } from '@/workers/listen-messages';
import { audioInput } from './audio-input';

/** How loud it is at first, and at most; dB under what the limiter lets through. */
export const QUIET_DB = -24;
/** The volume goes to where it is set within so many seconds. */
const RAMP_SECONDS = 0.02;
const SPECTRUM_SIZE = 4096;

interface SoundingState {
  on: boolean;
  muted: boolean;
  /** dB. */
  volume: number;
  player: PlayerState | null;
  problem: string | null;
}

export const useSounding = create<SoundingState>()(() => ({
  on: false,
  muted: false,
  volume: QUIET_DB,
  player: null,
  problem: null,
}));

/** What sounds, and what it needs of the browser. */
interface Sounding {
  context: AudioContext;
  node: AudioWorkletNode;
  gain: GainNode;
  analyser: AnalyserNode;
  worker: Worker;
  microphone?: { stream: MediaStream; source: MediaStreamAudioSourceNode };
}

let sounding: Sounding | undefined;
/** What was last said of each side, of the program and the recording, for a beginning. */
const said: {
  program?: Program;
  recording?: Float32Array | null;
  sides: Partial<Record<Side, { sheet: HeardSheet; way: number }>>;
  chosen: Side;
} = { sides: {}, chosen: 'a' };

const say = (message: ToPlayer, transfer: Transferable[] = []): void =>
  sounding?.worker.postMessage(message, transfer);

export const analyserNow = (): AnalyserNode | undefined => sounding?.analyser;
export const rateNow = (): number | undefined => sounding?.context.sampleRate;

/** Begin to play: quietly, and only after a person has asked for it. */
export async function begin(): Promise<void> {
  if (sounding) {
    await sounding.context.resume();
    useSounding.setState({ on: true });
    return;
  }
  try {
    const context = new AudioContext({ latencyHint: 'interactive' });
    await context.audioWorklet.addModule(new URL('./feeder.mjs', import.meta.url));
    const node = new AudioWorkletNode(context, 'feeder', { outputChannelCount: [1] });
    const gain = new GainNode(context, { gain: 0 });
    const analyser = new AnalyserNode(context, {
      fftSize: SPECTRUM_SIZE,
      smoothingTimeConstant: 0.6,
    });
    node.connect(analyser).connect(gain).connect(context.destination);
    const worker = new Worker(new URL('../../workers/listen.worker.ts', import.meta.url), {
      type: 'module',
      name: 'listen',
    });
    worker.onmessage = (event: MessageEvent<PlayerState>) =>
      useSounding.setState({ player: event.data });
    worker.onerror = () => fail('What plays the circuit has stopped: press Play to begin anew.');
    sounding = { context, node, gain, analyser, worker };
    engine().gentle = true;
    const { port1, port2 } = new MessageChannel();
    node.port.postMessage({ is: 'port', port: port1 }, [port1]);
    say({ is: 'begin', rate: context.sampleRate, port: port2 }, [port2]);
    sayAll();
    await context.resume();
    useSounding.setState({ on: true, problem: null });
    setVolume();
  } catch (error) {
    end();
    useSounding.setState({
      problem: `This browser cannot play it: ${error instanceof Error ? error.message : String(error)}`,
    });
  }
}

function sayAll(): void {
  if (said.program) say({ is: 'program', program: said.program });
  if (said.recording) say({ is: 'recording', samples: said.recording });
  for (const side of ['a', 'b'] as const) {
    const heard = said.sides[side];
    if (heard) say({ is: 'load', side, ...heard });
  }
  say({ is: 'choose', side: said.chosen });
}

function fail(problem: string): void {
  end();
  useSounding.setState({ problem });
}

/** Silence, and everything let go. */
export function end(): void {
  const was = sounding;
  sounding = undefined;
  useSounding.setState({ on: false, player: null });
  if (!was) return;
  engine().gentle = false;
  hearNothing(was);
  was.node.port.postMessage({ is: 'end' });
  was.worker.terminate();
  void was.context.close();
}

/** A sheet as it is now, on one side. */
export function hearSheet(side: Side, sheet: HeardSheet, way: number): void {
  const { parts, source, ways, controls, crossover, bank } = sheet;
  said.sides[side] = { sheet: { parts, source, ways, controls, crossover, bank }, way };
  say({ is: 'load', side, ...said.sides[side] });
}

export function hearNoSheet(side: Side): void {
  delete said.sides[side];
  if (said.chosen === side) said.chosen = 'a';
  say({ is: 'unload', side });
}

export function choose(side: Side): void {
  said.chosen = side;
  say({ is: 'choose', side });
}

export function hearProgram(program: Program): void {
  said.program = program;
  say({ is: 'program', program });
  if (sounding && program.sound !== 'input') hearNothing(sounding);
}

/** A recording at the rate that sounds. */
export function hearRecording(samples: Float32Array | null): void {
  said.recording = samples;
  say({ is: 'recording', samples });
}

/** What comes into this machine. @throws where the browser does not let us */
export async function hearInput(): Promise<void> {
  if (!sounding || sounding.microphone) return;
  const stream = await audioInput();
  if (!sounding) {
    stream.getTracks().forEach((t) => t.stop());
    return;
  }
  const source = sounding.context.createMediaStreamSource(stream);
  source.connect(sounding.node);
  sounding.microphone = { stream, source };
  sounding.node.port.postMessage({ is: 'listen', on: true });
}

function hearNothing(from: Sounding): void {
  const { microphone } = from;
  if (!microphone) return;
  microphone.source.disconnect();
  microphone.stream.getTracks().forEach((t) => t.stop());
  from.node.port.postMessage({ is: 'listen', on: false });
  delete from.microphone;
}

export const press = (semitones: number): void => say({ is: 'press', semitones });
export const release = (semitones: number): void => say({ is: 'release', semitones });

/** How loud, dB; by itself it says again what is set. */
export function setVolume(volume = useSounding.getState().volume): void {
  useSounding.setState({ volume });
  ramp();
}

export function setMuted(muted: boolean): void {
  useSounding.setState({ muted });
  ramp();
}

function ramp(): void {
  if (!sounding) return;
  const { muted, volume } = useSounding.getState();
  const { context, gain } = sounding;
  gain.gain.setTargetAtTime(muted ? 0 : 10 ** (volume / 20), context.currentTime, RAMP_SECONDS);
}
