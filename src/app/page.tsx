import { ShelfScreen } from '@/features/shelf/shelf-screen';

export default function Page() {
  return <ShelfScreen />;
}
