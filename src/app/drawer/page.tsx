import { DrawerScreen } from '@/features/drawer/drawer-screen';

export default function Page() {
  return <DrawerScreen />;
}
