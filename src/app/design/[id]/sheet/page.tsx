import { Sheet } from '@/stations/sheet/sheet';

export default function Page() {
  return <Sheet />;
}
