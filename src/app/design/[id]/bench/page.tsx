import { Bench } from '@/places/bench/bench';

export default function Page() {
  return <Bench />;
}
