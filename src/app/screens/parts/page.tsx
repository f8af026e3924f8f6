'use client';

import { PartsListScreen } from '@/features/parts-list/parts-list-screen';
import { useSheetId } from '@/features/shell/sheet-address';

export default function Page() {
  const id = useSheetId();
  return <PartsListScreen key={id} id={id} />;
}
