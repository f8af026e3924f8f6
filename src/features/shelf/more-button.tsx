import { Ellipsis } from 'lucide-react';
import type { ComponentProps } from 'react';
import styles from './sheet-card.module.css';

/** What opens a card's menu. */
export function MoreButton({
  title,
  className = '',
  ...props
}: { title: string } & ComponentProps<'button'>) {
  return (
    <button
      type="button"
      className={`${styles.more} ${className}`}
      aria-label={`Actions for ${title}`}
      aria-haspopup="menu"
      {...props}
    >
      <Ellipsis size={16} aria-hidden />
    </button>
  );
}
