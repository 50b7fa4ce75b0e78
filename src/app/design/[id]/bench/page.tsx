import { Bench } from '@/stations/bench/bench';

export default function Page() {
  return <Bench />;
}
