import { PracticeScreen } from '@/features/practice/practice-screen';

export default function Page() {
  return <PracticeScreen />;
}
