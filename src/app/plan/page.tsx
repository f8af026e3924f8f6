import { PlanScreen } from '@/features/plan/plan-screen';

export default function Page() {
  return <PlanScreen />;
}
