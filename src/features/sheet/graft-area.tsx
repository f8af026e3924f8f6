'use client';

import { memo, useEffect, useRef } from 'react';
import type { Control, Stage } from '@/core/sheet/schema';
import { GraftBar } from './graft-bar';
import { GraftSentence } from './graft-sentence';
import { PointSentence } from './point-sentence';
import { isPointDoing, type Grafting } from './ui-state';

interface GraftAreaProps {
  stage: Stage;
  /** The chosen part of it, if any. */
  part: string | null;
  names: ReadonlyMap<string, string>;
  grafting: Grafting | null;
  controls: readonly Control[];
}

/** What changes a circuit, under its drawing: what can be done, or the sentence that is being said. */
export const GraftArea = memo(function GraftArea({
  stage,
  part,
  names,
  grafting,
  controls,
}: GraftAreaProps) {
  const host = useRef<HTMLDivElement>(null);
  const was = useRef(grafting);
  useEffect(() => {
    // Who leaves a sentence by the keyboard goes on from what can be done next.
    if (was.current !== null && grafting === null) host.current?.querySelector('button')?.focus();
    was.current = grafting;
  }, [grafting]);
  return (
    <div ref={host}>
      {grafting === null ? (
        <GraftBar stage={stage} part={part} names={names} controls={controls} />
      ) : isPointDoing(grafting.do) ? (
        <PointSentence key={stage.id} stage={stage} doing={grafting.do} />
      ) : (
        <GraftSentence
          key={`${stage.id} ${grafting.do} ${grafting.part}`}
          stage={stage}
          grafting={grafting}
          names={names}
        />
      )}
    </div>
  );
});
