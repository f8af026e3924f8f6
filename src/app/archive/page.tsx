import { ArchiveScreen } from '@/features/archive/archive-screen';

export default function Page() {
  return <ArchiveScreen />;
}
