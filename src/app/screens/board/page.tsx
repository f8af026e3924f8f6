'use client';

import { StripScreen } from '@/features/strip/strip-screen';
import { useSheetId } from '@/features/shell/sheet-address';

export default function Page() {
  const id = useSheetId();
  return <StripScreen key={id} id={id} />;
}
