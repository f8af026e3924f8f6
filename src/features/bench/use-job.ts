import { useEffect, useState } from 'react';
import { messageOf } from '@/core/errors';
import type { JobInput, JobName, JobResult } from '@/core/jobs';
import { engine } from '@/workers/engine';

export interface JobState<R> {
  /** Of just this input; nothing while it is worked out. */
  result: R | null;
  problem: string | null;
}

/**
 * What a job makes of an input, worked out beside the page. The input itself tells whose the answer is,
 * so that no figures ever stand beside other values than theirs: it must be the same object as long as
 * nothing that matters has changed.
 */
export function useJob<N extends JobName>(
  name: N,
  input: JobInput<N> | null,
): JobState<JobResult<N>> {
  const [state, setState] = useState<JobState<JobResult<N>> & { of: unknown }>({
    result: null,
    problem: null,
    of: null,
  });
  useEffect(() => {
    if (input === null) return;
    const stop = new AbortController();
    engine()
      .run(name, input, { signal: stop.signal })
      .then((result) => setState({ result, problem: null, of: input }))
      .catch((error: unknown) => {
        if (!stop.signal.aborted) setState({ result: null, problem: messageOf(error), of: input });
      });
    return () => stop.abort();
  }, [name, input]);
  return input !== null && state.of === input ? state : { result: null, problem: null };
}
