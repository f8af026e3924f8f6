import { LessonsScreen } from '@/features/lessons/lessons-screen';

export default function Page() {
  return <LessonsScreen />;
}
