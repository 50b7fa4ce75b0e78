import { Supply } from '@/stations/supply/supply';

export default function Page() {
  return <Supply />;
}
