import { ReportScreen } from '@/features/report/report-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <ReportScreen id={decodeURIComponent(id)} />;
}
