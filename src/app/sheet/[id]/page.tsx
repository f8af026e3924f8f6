import { SheetScreen } from '@/features/sheet/sheet-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <SheetScreen id={decodeURIComponent(id)} />;
}
