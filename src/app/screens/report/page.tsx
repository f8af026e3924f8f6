'use client';

import { ReportScreen } from '@/features/report/report-screen';
import { useSheetId } from '@/features/shell/sheet-address';

export default function Page() {
  const id = useSheetId();
  return <ReportScreen key={id} id={id} />;
}
