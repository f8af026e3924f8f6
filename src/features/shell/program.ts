import { create } from 'zustand';
import { openWork } from '@/store/open-work';

/** What a browser asks when it would install the program. */
interface InstallEvent extends Event {
  prompt(): Promise<unknown>;
}

/** The program itself, as it is kept in this browser. */
interface Program {
  /** Whether it works without a network: not looked at yet, being fetched, all here, or not here. */
  kept: 'unknown' | 'fetching' | 'kept' | 'not';
  /** A newer version, fetched whole and waiting to be taken. */
  newer: ServiceWorker | null;
  /** Another tab has taken a newer version while this one runs. */
  overtaken: boolean;
  /** How it can be installed, where the browser offers that. */
  install: InstallEvent | null;
}

export const useProgram = create<Program>()(() => ({
  kept: 'unknown',
  newer: null,
  overtaken: false,
  install: null,
}));

/** How often a newer version is looked for while a page stands, milliseconds. */
const LOOK_EVERY = 3600_000;

if (typeof window !== 'undefined')
  window.addEventListener('beforeinstallprompt', (event) => {
    event.preventDefault(); // it is offered among the preferences, and asked for there
    useProgram.setState({ install: event as InstallEvent });
  });

/**
 * Has the browser keep the program, and follows what becomes of it. A newer version is fetched while
 * the present one runs, and waits until it is taken or no tab is left.
 */
export async function keepProgram(): Promise<void> {
  if (!('serviceWorker' in navigator)) return useProgram.setState({ kept: 'not' });
  const workers = navigator.serviceWorker;
  let runs = workers.controller;
  workers.addEventListener('controllerchange', () => {
    // The first one takes over what it was fetched for: nothing changes.
    if (runs !== null) useProgram.setState({ overtaken: true, newer: null });
    runs = workers.controller;
    if (reloading) location.reload();
  });
  let registration: ServiceWorkerRegistration;
  try {
    registration = await workers.register('/sw.js', { updateViaCache: 'none' });
  } catch {
    // Without a network it may be here all the same.
    return useProgram.setState({ kept: runs === null ? 'not' : 'kept' });
  }
  const look = () =>
    useProgram.setState({
      kept: registration.active ? 'kept' : registration.installing ? 'fetching' : 'not',
      newer: registration.active ? registration.waiting : null,
    });
  const follow = () => registration.installing?.addEventListener('statechange', look);
  registration.addEventListener('updatefound', follow);
  follow();
  look();
  runs?.postMessage({ type: 'BEGUN' });
  // Not answered without a network: asked again later.
  setInterval(() => void registration.update().catch(() => undefined), LOOK_EVERY);
}

let reloading = false;

/**
 * Take the newer version: what is open is stored, then the page begins anew in it.
 *
 * @returns false where edits could not be stored, and nothing was taken
 */
export async function takeNewer(): Promise<boolean> {
  await openWork().flush();
  if (openWork().wouldLose()) return false;
  const { newer, overtaken } = useProgram.getState();
  if (newer === null || overtaken) location.reload();
  else {
    reloading = true;
    newer.postMessage({ type: 'SKIP_WAITING' });
  }
  return true;
}
