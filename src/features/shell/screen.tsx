import { useEffect, type ReactNode } from 'react';
import styles from './screen.module.css';

/** The frame of a screen: what it is, what stands beside that, and the screen itself. */
export function Screen({
  title,
  tab = title,
  beside,
  children,
}: {
  title: string;
  /** What it is called on the tab, where that is shorter. */
  tab?: string;
  /** Words and buttons in the line of the title. */
  beside: ReactNode;
  children: ReactNode;
}) {
  useEffect(() => {
    document.title = `${tab} · Jaunty Reed`;
  }, [tab]);
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <h1>{title}</h1>
        {beside}
      </header>
      {children}
    </div>
  );
}
