'use client';

import katex from 'katex';
import { useEffect, useRef } from 'react';

/** A typeset formula. Built node by node, so it needs no inline style markup. */
export function Tex({ formula }: { formula: string }) {
  const host = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    katex.render(formula, host.current!, {
      throwOnError: false,
      strict: 'ignore',
      displayMode: false,
    });
  }, [formula]);
  return <span ref={host} />;
}
