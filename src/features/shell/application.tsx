'use client';

import { ConfigProvider } from 'antd';
import { lazy, Suspense, useEffect, useState, useSyncExternalStore, type ReactNode } from 'react';
import { usePathname } from 'next/navigation';
import { usePreferences } from '@/store/preferences';
import { storageProblem } from '@/store/problems';
import { shelfReady } from '@/store/ready';
import { antdTheme } from '@/ui/theme/antd-theme';
import { Prepared } from '@/ui/controls/prepared';
import { useLeisure } from '@/ui/controls/use-leisure';
import type { ThemeName } from '@/ui/theme/roles';
import { engine } from '@/workers/engine';
import { begin } from './begin';
import { useShell } from './commands';
import { ErrorBoundary } from './error-boundary';
import { HotkeyBindings } from './hotkeys';
import { LeaveGuard } from './leave-guard';
import { Rail } from './rail';
import { keepProgram } from './program';
import { sheetIn } from './sheet-address';
import { refuse, useTold } from './tell';
import styles from './application.module.css';

// The windows are fetched when one is first opened, not before the first screen stands.
const CommandPalette = lazy(() =>
  import('./command-palette').then((m) => ({ default: m.CommandPalette })),
);
const TellHost = lazy(() => import('./tell-host').then((m) => ({ default: m.TellHost })));
const PreferencesWindow = lazy(() =>
  import('./preferences-window').then((m) => ({ default: m.PreferencesWindow })),
);
const ShortcutsWindow = lazy(() =>
  import('./shortcuts-window').then((m) => ({ default: m.ShortcutsWindow })),
);

if (typeof window !== 'undefined') begin(window.location.pathname);

/** Milliseconds. */
const FOLDER_AFTER = 8000;
const KEEP_AFTER = 3000;
const CLEAR_AFTER = 4000;
const ENGINE_AFTER = 600;

const nothing = () => () => {};

/** Everything around a screen. Sheets live in this browser, so all of it is rendered here. */
export function Application({
  nonce,
  children,
}: {
  nonce: string | undefined;
  children: ReactNode;
}) {
  const inBrowser = useSyncExternalStore(
    nothing,
    () => true,
    () => false,
  );
  if (!inBrowser) return <div className={styles.application} />;
  return <InBrowser nonce={nonce}>{children}</InBrowser>;
}

function InBrowser({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  const theme = useThemeName();
  const path = usePathname();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    shelfReady().catch((error: unknown) =>
      setProblem(
        `Sheets cannot be stored here: ${storageProblem(error)}. What you do now is lost when the page is closed.`,
      ),
    );
  }, []);
  useLater(KEEP_AFTER, keepInBrowser);
  useLater(CLEAR_AFTER, clearAway);
  useLater(FOLDER_AFTER, lookForFolder);
  return (
    <ConfigProvider
      theme={antdTheme(theme)}
      csp={nonce ? { nonce } : undefined}
      wave={{ disabled: true }}
    >
      <div className={styles.application}>
        <Rail />
        <main className={styles.screen}>
          {problem && (
            <div role="alert" className={styles.problem}>
              {problem}
            </div>
          )}
          <ErrorBoundary screen={path}>{children}</ErrorBoundary>
        </main>
      </div>
      <Messages />
      <EngineTrouble />
      <LeaveGuard />
      <HotkeyBindings />
      <Windows />
    </ConfigProvider>
  );
}

/** Does something once, this many milliseconds after the shell has come to stand: nothing waits for it. */
function useLater(after: number, act: () => void): void {
  useEffect(() => {
    const timer = setTimeout(act, after);
    return () => clearTimeout(timer);
  }, [after, act]);
}

/** Has the browser fetch the program whole, but not before what somebody waits for. */
function keepInBrowser(): void {
  if (process.env.NODE_ENV === 'production') void keepProgram();
}

function clearAway(): void {
  void import('@/store/sheets').then((m) => m.clearOldDeletions()).catch(() => undefined);
}

/** A folder on disk that is kept up to date. */
function lookForFolder(): void {
  if (!('showDirectoryPicker' in window)) return;
  void import('@/store/folder').then(({ findFolder }) => findFolder()).catch(() => undefined);
}

/** The shell's windows: they stand ready before they are opened. */
function Windows() {
  const wanted = useShell((s) => s.open !== null);
  return (
    <Prepared open={wanted} after={2000}>
      <CommandPalette />
      <ShortcutsWindow />
      <PreferencesWindow />
    </Prepared>
  );
}

/** Short messages; fetched when there is one. */
function Messages() {
  const begun = useTold((s) => s.begun);
  return (
    begun && (
      <Suspense>
        <TellHost />
      </Suspense>
    )
  );
}

/** A worker that died was started again: said, since what is on screen may have been late. */
function EngineTrouble() {
  const path = usePathname();
  // A sheet's was begun before the page's own code was there.
  const leisure = useLeisure(ENGINE_AFTER);
  const begun = leisure || sheetIn(path) !== undefined;
  useEffect(() => {
    if (!begun) return;
    return engine().onTrouble(() =>
      refuse(
        'The part that computes had stopped and was started again. What was asked of it is being computed anew.',
        'engine',
      ),
    );
  }, [begun]);
  return null;
}

const DARK = '(prefers-color-scheme: dark)';

/** The theme in force, written to the page for the style sheets. */
function useThemeName(): ThemeName {
  const wanted = usePreferences((p) => p.theme);
  const systemDark = useSyncExternalStore(
    (changed) => {
      const query = matchMedia(DARK);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => matchMedia(DARK).matches,
    () => false,
  );
  const name: ThemeName = wanted === 'system' ? (systemDark ? 'dark' : 'light') : wanted;
  useEffect(() => {
    document.documentElement.dataset.theme = name;
  }, [name]);
  return name;
}
