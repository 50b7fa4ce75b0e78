import { Supply } from '@/places/supply/supply';

export default function Page() {
  return <Supply />;
}
