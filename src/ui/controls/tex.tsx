'use client';

import { useEffect, useRef } from 'react';

/** A typeset formula; the typesetter is fetched when a formula is first shown. */
export function Tex({ formula }: { formula: string }) {
  const host = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    let wanted = true;
    void import('./typeset').then(({ typeset }) => {
      if (wanted && host.current) typeset(formula, host.current);
    });
    return () => {
      wanted = false;
    };
  }, [formula]);
  return <span ref={host} />;
}
