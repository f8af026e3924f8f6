import { BenchScreen } from '@/features/bench/bench-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <BenchScreen id={decodeURIComponent(id)} />;
}
