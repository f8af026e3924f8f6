import { Button, Input } from 'antd';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { BOOK_LIMITS } from '@/core/book/entry';
import { addNote } from '@/store/book';
import { followBook, useBookLines, type Line } from '@/store/book-lines';
import { attemptStored } from '../shell/tell';
import { rowsOf, timeWords } from './days';
import { KIND_WORDS } from './kind-words';
import styles from './margin.module.css';

/** As many lines as stand beside a sheet; the book has all of them. */
const MOST = 40;

/** What was done with a sheet, latest first, and a place to write why. */
export function Margin({ id, title }: { id: string; title: string }) {
  const { lines } = useBookLines();
  useEffect(() => followBook(), []);
  const own = useMemo(() => lines.filter((line) => line.sheet === id), [lines, id]);
  const rows = useMemo(() => rowsOf(own.slice(0, MOST)), [own]);
  return (
    <aside className={styles.margin} aria-label="Margin of the book">
      <NewNote id={id} title={title} />
      {own.length === 0 && (
        <p className={styles.soft}>
          What is done with this sheet is written here by itself: values before and after, keeps,
          boards, takes.
        </p>
      )}
      <ol className={styles.lines}>
        {rows.map((row) =>
          row.is === 'day' ? (
            <li key={row.day} className={styles.day}>
              {row.day}
            </li>
          ) : (
            <MarginLine key={row.line.id} {...row.line} />
          ),
        )}
      </ol>
      {own.length > MOST && (
        <p className={styles.soft}>
          <Link href="/book">and {own.length - MOST} more in the book</Link>
        </p>
      )}
    </aside>
  );
}

function MarginLine({ id, at, kind, text, note, isTakenBack }: Line) {
  return (
    <li className={styles.line}>
      <Link href={`/book?line=${encodeURIComponent(id)}`} title="Open it in the book">
        <span className={styles.when}>
          {timeWords(at)} <i>{KIND_WORDS[kind]}</i>
        </span>
        <span className={isTakenBack ? styles.back : undefined}>{text}</span>
        {note !== '' && <em>{note.split('\n')[0]}</em>}
      </Link>
    </li>
  );
}

function NewNote({ id, title }: { id: string; title: string }) {
  const [text, setText] = useState('');
  const write = async () => {
    if (text.trim() === '') return;
    const done = await attemptStored('The note was not stored', async () => {
      await addNote(text.trim(), { id, title });
    });
    if (done) setText('');
  };
  return (
    <form
      className={styles.new}
      onSubmit={(e) => {
        e.preventDefault();
        void write();
      }}
    >
      <Input.TextArea
        className={styles.text}
        aria-label="A note about this sheet"
        placeholder="Write down why …"
        rows={2}
        maxLength={BOOK_LIMITS.note}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || !(e.ctrlKey || e.metaKey)) return;
          e.preventDefault();
          void write();
        }}
      />
      {text.trim() !== '' && (
        <Button size="small" type="primary" htmlType="submit">
          Write it down
        </Button>
      )}
    </form>
  );
}
