import '@/ui/theme/made/components.css';
import '@fontsource/figtree/400.css';
import '@fontsource/figtree/500.css';
import '@fontsource/figtree/600.css';
import '@fontsource/figtree/700.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/500.css';
import '@fontsource/ibm-plex-mono/600.css';
import '@/ui/theme/theme.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Application } from '@/features/shell/application';

export const metadata: Metadata = {
  title: 'Jaunty Reed',
  description: 'A bench companion for people who design and build analogue audio circuits',
};

/** Sets the theme before anything is painted, so that a dark page never flashes white. */
const EARLY_THEME = `try{var p=JSON.parse(localStorage.getItem('jaunty-reed-preferences')||'{}').state||{};var t=p.theme||'system';if(t==='system')t=matchMedia('(prefers-color-scheme: dark)').matches?'dark':'light';document.documentElement.dataset.theme=t}catch(e){}`;

/**
 * Component libraries make style elements of their own. The policy allows only those that carry the
 * page's nonce, so it is lent to every style element this page's own scripts create.
 */
const LEND_NONCE = `(function(n){var make=document.createElement.bind(document);document.createElement=function(name,o){var e=make(name,o);if(n&&String(name).toLowerCase()==='style')e.nonce=n;return e}})(document.currentScript.nonce);`;

/**
 * The first writer of dates costs a page fifty milliseconds, whichever it is, and others then next to
 * nothing: made while the scripts are on their way, no card with a date on it has to wait for it.
 */
const WARM_DATES = `setTimeout(function(){new Intl.DateTimeFormat([],{dateStyle:'medium',timeStyle:'short'})});`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <script
          nonce={nonce}
          suppressHydrationWarning
          dangerouslySetInnerHTML={{ __html: LEND_NONCE + EARLY_THEME + WARM_DATES }}
        />
        <Application nonce={nonce}>{children}</Application>
      </body>
    </html>
  );
}
