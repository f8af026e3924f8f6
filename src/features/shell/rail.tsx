'use client';

import {
  Activity,
  CircleHelp,
  FileSpreadsheet,
  GraduationCap,
  Inbox,
  LibraryBig,
  ListTodo,
  NotebookText,
  Signpost,
  SlidersHorizontal,
  Speaker,
} from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useEffect, type ReactNode } from 'react';
import { useLeisure } from '@/ui/controls/use-leisure';
import { useShell } from './commands';
import { NewerVersion } from './newer-version';
import styles from './rail.module.css';

/** The slim rail between screens: the shelf, the sheet that was open last, and the shell's windows. */
export function Rail() {
  const path = usePathname();
  // The other screens are fetched ahead, but not before this one stands.
  const prefetch = useLeisure(1500) ? null : false;
  // The sheet itself, also from what belongs to it.
  const sheet = /^\/sheet\/[^/]+/.exec(path)?.[0];
  useEffect(() => {
    if (sheet !== undefined) sessionStorage.setItem('last-sheet', sheet);
  }, [sheet]);
  const lastSheet = sheet ?? sessionStorage.getItem('last-sheet');
  return (
    <nav className={styles.rail} aria-label="Screens">
      <Link
        href="/"
        prefetch={prefetch}
        className={styles.mark}
        aria-label="Jaunty Reed, to the shelf"
      >
        <svg viewBox="0 0 32 32" width="28" height="28" aria-hidden>
          <path
            d="M6 27C7 14 15 6 27 5c-1 12-9 19-17 19 3-6 7-10 12-13C16 13 10 18 6 27Z"
            fill="var(--accent)"
          />
        </svg>
      </Link>
      <RailLink
        href="/"
        label="Shelf"
        current={path === '/'}
        prefetch={prefetch}
        icon={<LibraryBig size={18} strokeWidth={1.6} />}
      />
      {lastSheet && (
        <RailLink
          href={lastSheet}
          label="Sheet"
          current={path === lastSheet}
          prefetch={prefetch}
          icon={<FileSpreadsheet size={18} strokeWidth={1.6} />}
        />
      )}
      {lastSheet && (
        <RailLink
          href={`${lastSheet}/bench`}
          label="Bench"
          current={path === `${lastSheet}/bench`}
          prefetch={prefetch}
          icon={<Activity size={18} strokeWidth={1.6} />}
        />
      )}
      <RailLink
        href="/drawer"
        label="Drawer"
        current={path === '/drawer'}
        prefetch={prefetch}
        icon={<Inbox size={18} strokeWidth={1.6} />}
      />
      <RailLink
        href="/drivers"
        label="Drivers"
        current={path === '/drivers'}
        prefetch={prefetch}
        icon={<Speaker size={18} strokeWidth={1.6} />}
      />
      <RailLink
        href="/book"
        label="Book"
        current={path === '/book'}
        prefetch={prefetch}
        icon={<NotebookText size={18} strokeWidth={1.6} />}
      />
      <RailLink
        href="/plan"
        label="Plan"
        current={path === '/plan'}
        prefetch={prefetch}
        icon={<ListTodo size={18} strokeWidth={1.6} />}
      />
      <RailLink
        href="/practice"
        label="Practice"
        current={path === '/practice'}
        prefetch={prefetch}
        icon={<GraduationCap size={18} strokeWidth={1.6} />}
      />
      <RailLink
        href="/lessons"
        label="Lessons"
        current={path === '/lessons'}
        prefetch={prefetch}
        icon={<Signpost size={18} strokeWidth={1.6} />}
      />
      <span className={styles.gap} />
      <NewerVersion />
      <button
        type="button"
        className={styles.item}
        onClick={() => useShell.setState({ open: 'shortcuts' })}
      >
        <CircleHelp size={18} strokeWidth={1.6} aria-hidden />
        Keys
      </button>
      <button
        type="button"
        className={styles.item}
        onClick={() => useShell.setState({ open: 'preferences' })}
      >
        <SlidersHorizontal size={18} strokeWidth={1.6} aria-hidden />
        Prefer
      </button>
    </nav>
  );
}

function RailLink({
  href,
  label,
  current,
  prefetch,
  icon,
}: {
  href: string;
  label: string;
  current: boolean;
  prefetch: false | null;
  icon: ReactNode;
}) {
  return (
    <Link
      href={href}
      prefetch={prefetch}
      className={current ? `${styles.item} ${styles.current}` : styles.item}
      aria-current={current ? 'page' : undefined}
    >
      {icon}
      {label}
    </Link>
  );
}
