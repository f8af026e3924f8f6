'use client';

import { Button } from 'antd';
import { Component, type ReactNode } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { openWork } from '@/store/open-work';
import { attemptStored } from './tell';
import styles from './error-boundary.module.css';

interface Props {
  /** A fault on one screen does not follow to the next. */
  screen: string;
  children: ReactNode;
}

/**
 * What stands in the place of a screen that could not be drawn. The sheet lives outside the screen:
 * it goes on being stored, and can be exported from here.
 */
export class ErrorBoundary extends Component<Props, { fault: Error | null; on: string }> {
  override state = { fault: null as Error | null, on: this.props.screen };

  static getDerivedStateFromError(fault: Error) {
    return { fault };
  }
  static getDerivedStateFromProps({ screen }: Props, { on }: { on: string }) {
    return screen === on ? null : { on: screen, fault: null };
  }

  override render() {
    const { fault } = this.state;
    if (!fault) return this.props.children;
    const sheet = openWork().sheet();
    return (
      <div role="alert" className={styles.fault}>
        <h1>This screen could not be drawn</h1>
        <p>
          That is a fault of the program. Your sheets are not touched by it: what you did last is
          stored, and can be exported here.
        </p>
        <p className={styles.detail}>{fault.message.slice(0, 200)}</p>
        <div className={styles.ways}>
          <Button type="primary" href="/">
            To the shelf
          </Button>
          {sheet && <Button onClick={() => void exportSheet(sheet)}>Export “{sheet.title}”</Button>}
          <Button onClick={() => this.setState({ fault: null })}>Try again</Button>
        </div>
      </div>
    );
  }
}

const exportSheet = (sheet: Sheet): Promise<boolean> =>
  attemptStored(`“${sheet.title}” was not exported`, async () => {
    const { sheetFile } = await import('../sheet/sheet-file');
    await sheetFile(sheet);
  });
