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
  type LucideIcon,
} from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useEffect } from 'react';
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
      {screensBeside(lastSheet).map(({ href, label, icon: Icon }) => (
        <Link
          key={label}
          href={href}
          prefetch={prefetch}
          className={path === href ? `${styles.item} ${styles.current}` : styles.item}
          aria-current={path === href ? 'page' : undefined}
        >
          <Icon size={18} strokeWidth={1.6} />
          {label}
        </Link>
      ))}
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

/** Every screen that is one step away: one line each. */
const screensBeside = (
  lastSheet: string | null,
): readonly { href: string; label: string; icon: LucideIcon }[] => [
  { href: '/', label: 'Shelf', icon: LibraryBig },
  ...(lastSheet
    ? [
        { href: lastSheet, label: 'Sheet', icon: FileSpreadsheet },
        { href: `${lastSheet}/bench`, label: 'Bench', icon: Activity },
      ]
    : []),
  { href: '/drawer', label: 'Drawer', icon: Inbox },
  { href: '/drivers', label: 'Drivers', icon: Speaker },
  { href: '/book', label: 'Book', icon: NotebookText },
  { href: '/plan', label: 'Plan', icon: ListTodo },
  { href: '/practice', label: 'Practice', icon: GraduationCap },
  { href: '/lessons', label: 'Lessons', icon: Signpost },
];
