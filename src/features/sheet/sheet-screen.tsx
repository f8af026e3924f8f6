'use client';

import { useRouter } from 'next/navigation';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { followsAsk } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { flush, openSheet } from '@/store/session-storage';
import { lessonOfSheet, useLessons } from '@/store/lessons';
import { usePreferences } from '@/store/preferences';
import { redo, undo, useSession, useSheet } from '@/store/sheet-session';
import type { Bank } from '@/core/sheet/bank-schema';
import type { Crossover } from '@/core/sheet/crossover-schema';
import { Prepared } from '@/ui/controls/prepared';
import { sheetAddress } from '../shell/sheet-address';
import { Coming } from '../shell/coming';
import { useCommands } from '../shell/commands';
import { ListeningDock } from '../listen/listening-dock';
import { useGo } from '../shell/leave-guard';
import { LensPanel } from './lens-panel';
import { lensesOf } from './lenses';
import type { Lens } from './lenses/lens';
import { commonCommands, sheetCommands } from './sheet-commands';
import { resetUi, setUi, useUi } from './ui-state';
import { Notices } from './notices';
import { Unopened } from './unopened';
import { beginSheet } from './begin-sheet';
import { useEvaluations } from './evaluations';
import { useFollowing } from './use-evaluation';
import styles from './sheet-screen.module.css';

if (typeof window !== 'undefined') beginSheet(window.location.pathname);

// The picture comes first: what stands around it is fetched, all of it together, and put up once the
// first curve is drawn.
const around = () => import('./around-picture');
const SheetHeader = lazy(() => around().then((m) => ({ default: m.SheetHeader })));
const PathStrip = lazy(() => around().then((m) => ({ default: m.PathStrip })));
const CircuitPanel = lazy(() => around().then((m) => ({ default: m.CircuitPanel })));
const ReadingsTable = lazy(() => around().then((m) => ({ default: m.ReadingsTable })));
const BankScreen = lazy(() =>
  import('../bank/bank-screen').then((m) => ({ default: m.BankScreen })),
);
const CrossoverScreen = lazy(() =>
  import('../crossover/crossover-screen').then((m) => ({ default: m.CrossoverScreen })),
);
const CompareWindow = lazy(() =>
  import('../book/compare-window').then((m) => ({ default: m.CompareWindow })),
);
const Margin = lazy(() => import('../book/margin').then((m) => ({ default: m.Margin })));
const LessonPanel = lazy(() =>
  import('../lessons/lesson-panel').then((m) => ({ default: m.LessonPanel })),
);
const WeighUp = lazy(() => import('./weigh-up').then((m) => ({ default: m.WeighUp })));

/** One design as a worksheet: ask, path, circuit, picture, readings. */
export function SheetScreen({ id }: { id: string }) {
  const router = useRouter();
  const sheet = useSheet();
  const openId = sheet?.id;
  // A sheet that lost against another tab goes on as a copy: the address follows it.
  useEffect(
    () =>
      useSession.subscribe((after, before) => {
        const [now, was] = [after.frame?.id, before.frame?.id];
        if (was === id && now !== undefined && now !== id) router.replace(sheetAddress(now));
      }),
    [id, router],
  );
  useEffect(() => {
    if (useSession.getState().frame?.id !== id) resetUi();
    void openSheet(id);
    const save = () => void flush();
    window.addEventListener('pagehide', save);
    document.addEventListener('visibilitychange', save);
    return () => {
      window.removeEventListener('pagehide', save);
      document.removeEventListener('visibilitychange', save);
      save();
    };
  }, [id]);
  const comparing = useUi((s) => s.comparing);
  const margin = usePreferences((p) => p.margin);
  const lesson = useLessons((s) => lessonOfSheet(s, id));
  if (!sheet || openId !== id) return <Unopened id={id} />;
  return (
    <div className={styles.beside}>
      <Open sheet={sheet} />
      {comparing && (
        <Suspense fallback={<Coming />}>
          <CompareWindow sheet={sheet} onClose={() => setUi({ comparing: false })} />
        </Suspense>
      )}
      {lesson !== undefined && (
        <Suspense>
          <LessonPanel id={lesson} sheet={sheet} />
        </Suspense>
      )}
      {margin && (
        <Suspense>
          <Margin id={sheet.id} title={sheet.title} />
        </Suspense>
      )}
    </div>
  );
}

/** A sheet as its kind is worked on. */
function Open({ sheet }: { sheet: Sheet }) {
  if (sheet.bank) return <OpenBank sheet={sheet} bank={sheet.bank} />;
  if (sheet.crossover) return <OpenCrossover sheet={sheet} crossover={sheet.crossover} />;
  return <OpenSheet sheet={sheet} />;
}

/** A crossover has its own body, with a row for each way. */
function OpenCrossover({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  useSheetShell(sheet.title, commonCommands);
  return (
    <Suspense>
      <CrossoverScreen sheet={sheet} crossover={crossover} />
    </Suspense>
  );
}

/** What every open sheet has: its commands in the palette and its name on the tab. */
function useSheetShell(
  title: string,
  commandsOf: typeof sheetCommands = sheetCommands,
  lenses?: readonly Lens[],
): void {
  const go = useGo();
  const commands = useMemo(
    () =>
      commandsOf(
        {
          undo,
          redo,
          toShelf: () => go('/'),
          toParts: () => go(`${window.location.pathname}/parts`),
          toBoard: () => go(`${window.location.pathname}/board`),
          toBench: () => go(`${window.location.pathname}/bench`),
          toBook: () => go('/book'),
          toReport: () => go(`${window.location.pathname}/report`),
        },
        lenses,
      ),
    [go, commandsOf, lenses],
  );
  useCommands('sheet', commands);
  useEffect(() => {
    document.title = `${title} · Jaunty Reed`;
  }, [title]);
}

/** A bank has many paths and no single one to draw: its own body under the same header. */
function OpenBank({ sheet, bank }: { sheet: Sheet; bank: Bank }) {
  useSheetShell(sheet.title);
  return (
    <div className={styles.sheet}>
      <div className={styles.head}>
        <Suspense>
          <SheetHeader title={sheet.title} ask={null} byHand={false} made="" keeps={sheet.keeps} />
        </Suspense>
      </div>
      <Notices problem={null} />
      <Suspense>
        <BankScreen sheet={sheet} bank={bank} />
      </Suspense>
      <ListeningDock sheet={sheet} />
    </div>
  );
}

/** Everything around the picture waits for the first curve, but not for long. */
const PATIENCE = 800;

/** From then on the weigh-up is prepared, milliseconds. */
const AFTER_FORMS = 1500;

/** Whether it is time to put up what stands around the picture. */
function useAround(drawn: boolean): boolean {
  const [around, setAround] = useState(false);
  useEffect(() => {
    if (around) return;
    // After the frame in which the curve is drawn.
    const timer = setTimeout(() => setAround(true), drawn ? 20 : PATIENCE);
    return () => clearTimeout(timer);
  }, [around, drawn]);
  useEffect(() => {
    if (!around) return;
    void followAround();
    const timer = setTimeout(fetchForms, 2 * PATIENCE);
    return () => clearTimeout(timer);
  }, [around]);
  return around;
}

/**
 * What is worked out beside the curves: what tolerances make of them, values that go together, and
 * what the drawer has left.
 */
async function followAround(): Promise<void> {
  const { followBuiltBoards, followDesigns, followFigures, followSpread } = await around();
  followSpread();
  followDesigns();
  followBuiltBoards();
  followFigures();
}

/** Forms that are opened by a key or a press: fetched once everything stands, before they are wanted. */
function fetchForms(): void {
  void import('./pin-form');
  void import('./wanted-form');
  void import('./fit-form');
  void import('./title-editor');
  void import('./try-slider');
  void import('./joint-panel');
  void import('./graft-words');
}

function OpenSheet({ sheet }: { sheet: Sheet }) {
  useFollowing();
  const problem = useEvaluations((s) => s.problem);
  const stale = useEvaluations((s) => s.stale);
  const evaluated = useEvaluations((s) => s.evaluation !== null);
  const weighing = useUi((s) => s.weighing);
  const chosen = useUi((s) => s.stageId);
  const isTime = useAround(evaluated || problem !== null);
  const stages = sheet.ways[0].stages;
  const stage = stages.find((s) => s.id === chosen) ?? stages[0];
  useSheetShell(sheet.title, sheetCommands, lensesOf(sheet));
  // As high as the table will be, so that the picture stays where it is.
  const readingsToCome = (
    <div style={{ height: 38 + 26 * Math.min(6, sheet.readings.length + 1) }} />
  );
  const pending = <section className={styles.pending} aria-busy />;
  return (
    <div className={styles.sheet} data-stale={(stale && evaluated) || undefined} aria-busy={stale}>
      <div className={styles.head}>
        {isTime && (
          <Suspense>
            <SheetHeader
              title={sheet.title}
              ask={sheet.ask}
              byHand={!followsAsk(sheet)}
              made={stages
                .filter((s) => s.origin === 'ask')
                .flatMap((s) => s.topology ?? [])
                .join(' ')}
              keeps={sheet.keeps}
            />
          </Suspense>
        )}
      </div>
      <div className={styles.strip}>
        <Notices problem={problem} />
        {isTime && (
          <Suspense>
            <PathStrip sheet={sheet} selected={stage?.id} />
          </Suspense>
        )}
      </div>
      <div className={weighing ? `${styles.middle} ${styles.weighing}` : styles.middle}>
        {isTime && (
          <Prepared open={weighing} after={AFTER_FORMS} meanwhile={weighing && pending}>
            <WeighUp open={weighing} ask={sheet.ask} opAmp={sheet.parts.opAmp.model} />
          </Prepared>
        )}
        {!isTime && pending}
        {isTime && !weighing && (
          <Suspense fallback={pending}>
            <CircuitPanel sheet={sheet} stage={stage} />
          </Suspense>
        )}
        <LensPanel sheet={sheet} bar={isTime} />
      </div>
      <div className={styles.readings}>
        {!isTime && readingsToCome}
        {isTime && (
          <Suspense fallback={readingsToCome}>
            <ReadingsTable readings={sheet.readings} keeps={sheet.keeps} ask={sheet.ask} />
          </Suspense>
        )}
      </div>
      {isTime && <ListeningDock sheet={sheet} />}
    </div>
  );
}
