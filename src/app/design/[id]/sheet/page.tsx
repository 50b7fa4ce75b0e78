import { Sheet } from '@/places/sheet/sheet';

export default function Page() {
  return <Sheet />;
}
