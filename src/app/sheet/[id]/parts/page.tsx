import { PartsListScreen } from '@/features/parts-list/parts-list-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <PartsListScreen id={decodeURIComponent(id)} />;
}
