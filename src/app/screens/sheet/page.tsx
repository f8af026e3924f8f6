'use client';

import { SheetScreen } from '@/features/sheet/sheet-screen';
import { useSheetId } from '@/features/shell/sheet-address';

export default function Page() {
  const id = useSheetId();
  return <SheetScreen key={id} id={id} />;
}
