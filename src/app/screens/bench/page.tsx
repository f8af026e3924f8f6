'use client';

import { BenchScreen } from '@/features/bench/bench-screen';
import { useSheetId } from '@/features/shell/sheet-address';

export default function Page() {
  const id = useSheetId();
  return <BenchScreen key={id} id={id} />;
}
