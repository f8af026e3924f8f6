import { useEffect, useRef, useState } from 'react';
import { boardCircuit, type SheetBoard } from '@/core/bench/board-circuit';
import { SOUND_CARD } from '@/core/bench/meters';
import type { RigBoard } from '@/core/bench/rig-board';
import { loudestHz, sweepPlan, sweepSamples, sweptFrequencies } from '@/core/bench/sweep-plan';
import type { LoopBack, SweepTake } from '@/core/bench/sweep-take';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { levelAdvice, risingTone, type LevelAdvice } from '@/core/sweep/level-check';
import { engine } from '@/workers/engine';
import { Stopped, type AudioRig, type PlayOptions } from './audio-rig';
import { browserRig } from './browser-rig';
import { simulatedRig } from './simulated-rig';

export type Device = 'simulated' | 'here';

/** How it is swept. */
export interface SweepSettings {
  device: Device;
  /** The board behind the simulated device. */
  board: RigBoard;
  /** Of what is played, dB under full scale. */
  levelDb: number;
  seconds: number;
  /** How often; noise is told from what sweeps have not in common. */
  turns: number;
}

/** How it is swept at first. */
export const FIRST: SweepSettings = {
  device: 'simulated',
  board: { seed: 1, fault: '', meter: SOUND_CARD },
  levelDb: -12,
  seconds: 2,
  turns: 2,
};

type Doing = 'level' | 'wire' | 'sweep';

/** A wire that was measured, and with which sweep. */
interface Wire extends LoopBack {
  seconds: number;
}

/** A level that was checked, and of what. */
interface Checked {
  advice: LevelAdvice;
  levelDb: number;
  board: RigBoard;
  device: Device;
}

/** The tone of a level check rises for so long. */
const CHECK_SECONDS = 3;
const SIMULATED_CHECK_SECONDS = 0.25;

/** A sweep as it goes: the device is opened when it is first needed, and let go with the window. */
export function useSweep(sheet: Sheet, board: SheetBoard | undefined, settings: SweepSettings) {
  const { device, levelDb, seconds, turns } = settings;
  const { meter, of } = settings.board;
  const how = { ...(meter ? { meter } : {}), ...(of ? { of } : {}) };
  const opened = useRef<Promise<AudioRig> | null>(null);
  const stopping = useRef(new AbortController());
  const [doing, setDoing] = useState<Doing | null>(null);
  const [peak, setPeak] = useState(0);
  const [checked, setChecked] = useState<Checked | null>(null);
  const [wire, setWire] = useState<Wire | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const letGo = () => {
    stopping.current.abort();
    void opened.current?.then(
      (rig) => rig.close(),
      () => undefined,
    );
    opened.current = null;
  };
  // A wire of another device is none.
  useEffect(() => letGo, [device]);

  const rigNow = async (): Promise<AudioRig> => {
    if (device === 'simulated') return simulatedRig(sheet, settings.board);
    opened.current ??= browserRig();
    try {
      return await opened.current;
    } catch (error) {
      opened.current = null;
      throw error;
    }
  };
  const level = 10 ** (levelDb / 20);
  // Advice is of what was checked, and of nothing else.
  const isChecked = checked?.device === device && checked.board === settings.board;
  const advice = isChecked && checked.levelDb === levelDb ? checked.advice : null;
  const whole = wire?.seconds === seconds ? wire : null;

  /** One thing at a time; what goes wrong is said, and what is stopped says nothing. */
  const during = async (
    what: Doing,
    work: (rig: AudioRig, signal: AbortSignal) => Promise<void>,
  ) => {
    const own = new AbortController();
    stopping.current = own;
    setDoing(what);
    setProblem(null);
    setPeak(0);
    try {
      await work(await rigNow(), own.signal);
    } catch (error) {
      if (!(error instanceof Stopped) && !own.signal.aborted) setProblem(messageOf(error));
    } finally {
      if (stopping.current === own) setDoing(null);
    }
  };

  const played = async (rig: AudioRig, options: Omit<PlayOptions, 'onPeak'>) => {
    const plan = sweepPlan(sheet.view, rig.rate, seconds);
    return rig.play(sweepSamples(plan, level), { ...options, onPeak: setPeak });
  };

  return {
    doing,
    peak,
    advice,
    problem,
    /** Nothing loud is played through real things before a tone that rises slowly has reached as far. */
    isAllowed: device === 'simulated' || (isChecked && checked.levelDb >= levelDb),
    hasWire: whole !== null,
    stop: () => stopping.current.abort(),
    forgetWire: () => setWire(null),

    checkLevel: () =>
      during('level', async (rig, signal) => {
        const plan = sweepPlan(sheet.view, rig.rate, seconds);
        const own = boardCircuit(sheet, board, [], how);
        const hz = loudestHz(own, sweptFrequencies(sheet.view, plan));
        const tone = risingTone(
          hz,
          level,
          device === 'simulated' ? SIMULATED_CHECK_SECONDS : CHECK_SECONDS,
          rig.rate,
        );
        let highest = 0;
        await rig.play(tone, {
          through: 'board',
          times: 1,
          signal,
          onPeak: (now) => {
            highest = Math.max(highest, now);
            setPeak(now);
          },
        });
        setChecked({ advice: levelAdvice(highest), levelDb, board: settings.board, device });
      }),

    measureWire: () =>
      during('wire', async (rig, signal) => {
        const [recording] = await played(rig, { through: 'wire', times: 1, signal });
        setWire({ recording, level, seconds });
      }),

    /** @returns nothing where it was stopped or could not be */
    sweep: async (): Promise<SweepTake | null> => {
      let take: SweepTake | null = null;
      await during('sweep', async (rig, signal) => {
        const recordings = await played(rig, { through: 'board', times: turns, signal });
        take = await engine().run(
          'sweepTake',
          {
            view: { fromHz: sheet.view.fromHz, toHz: sheet.view.toHz },
            plan: sweepPlan(sheet.view, rig.rate, seconds),
            level,
            recordings,
            ...(whole ? { loopBack: whole } : {}),
          },
          { signal },
        );
      });
      return take;
    },
  };
}
