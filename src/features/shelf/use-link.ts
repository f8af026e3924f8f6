import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { whyNotMade } from '@/store/problems';
import { refuse } from '../shell/tell';

/** A link that holds a sheet was opened: the sheet goes onto the shelf, once, and is opened. */
export function useLink(): void {
  const router = useRouter();
  useEffect(() => {
    const look = async () => {
      const { hash } = location;
      if (hash.length < 2) return;
      const { openLink } = await import('./open-link');
      if (location.hash === hash) await openLink(hash, clear, (to) => router.push(to));
    };
    const onChange = () => void look().catch((error: unknown) => refuse(whyNotMade(error)));
    onChange();
    window.addEventListener('hashchange', onChange);
    return () => window.removeEventListener('hashchange', onChange);
  }, [router]);
}

const clear = () => history.replaceState(history.state, '', location.pathname);
