import { StripScreen } from '@/features/strip/strip-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <StripScreen id={decodeURIComponent(id)} />;
}
