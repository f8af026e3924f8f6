import { Suspense } from 'react';
import { BookScreen } from '@/features/book/book-screen';

export default function Page() {
  return (
    <Suspense>
      <BookScreen />
    </Suspense>
  );
}
