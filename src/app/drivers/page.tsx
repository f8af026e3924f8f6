import { DriversScreen } from '@/features/drivers/drivers-screen';

export default function Page() {
  return <DriversScreen />;
}
