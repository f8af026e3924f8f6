'use client';

import { message } from 'antd';
import { useEffect } from 'react';
import { useTold } from './tell';

/** Shows short messages as they come. */
export function TellHost() {
  const [api, holder] = message.useMessage({ maxCount: 3 });
  const waiting = useTold((s) => s.waiting);
  useEffect(() => {
    if (waiting.length === 0) return;
    for (const told of waiting) {
      if ('gone' in told) api.destroy(told.gone);
      else void api.open(told);
    }
    useTold.setState({ waiting: [] });
  }, [api, waiting]);
  return holder;
}
