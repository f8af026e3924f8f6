import { Button } from 'antd';
import Link from 'next/link';
import { useEffect } from 'react';
import { freshBoard } from '@/core/sheet/boards';
import type { LineOnHand } from '@/core/sheet/parts-on-hand';
import type { Sheet } from '@/core/sheet/schema';
import { wantBoards } from '@/store/plan';
import { edit } from '@/store/sheet-session';
import { attempt, tell } from '../shell/tell';
import { followBuiltBoards } from './follow';
import styles from './parts-list.module.css';

interface BoardsProps {
  sheet: Sheet;
  lines: readonly LineOnHand[];
  boards: number;
}

/** Boards that are built: what they took is counted off the drawer, and given back when undone. */
export function Boards({ sheet, lines, boards }: BoardsProps) {
  useEffect(followBuiltBoards, []);
  const built = sheet.boards.filter((b) => b.took);
  const lacking = lines.reduce((sum, l) => sum + l.lacking, 0);
  const mark = () =>
    attempt(() => {
      const took = Object.fromEntries(lines.flatMap((l) => l.take));
      edit((c) => ({ boards: [...c.boards, { ...freshBoard(c.boards, boards), took }] }));
      tell(
        lacking === 0
          ? 'Marked as built: its parts are counted off the drawer.'
          : 'Marked as built: what the drawer had of it is counted off.',
      );
    });
  const plan = () => {
    if (attempt(() => wantBoards(sheet.id, boards, sheet.boards.length)))
      tell(
        <>
          On the plan, with what is lacking for it. <Link href="/plan">To the plan</Link>
        </>,
        { seconds: 6 },
      );
  };
  return (
    <section className={styles.boards} aria-label="Boards that are built">
      <Button onClick={mark} disabled={lines.length === 0}>
        {boards === 1 ? 'Mark a board as built' : `Mark ${boards} boards as built`}
      </Button>
      <Button onClick={plan} disabled={lines.length === 0}>
        {boards === 1 ? 'Put a board on the plan' : `Put ${boards} boards on the plan`}
      </Button>
      {built.length > 0 && (
        <ul>
          {built.map((board) => (
            <li key={board.id}>
              {board.name}: {Object.values(board.took!).reduce((a, b) => a + b, 0)} parts from the
              drawer
              <Button
                size="small"
                onClick={() =>
                  attempt(() =>
                    edit((c) => ({ boards: c.boards.filter((b) => b.id !== board.id) })),
                  )
                }
              >
                Not built
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
