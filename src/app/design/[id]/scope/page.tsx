import { Scope } from '@/stations/scope/scope';

export default function Page() {
  return <Scope />;
}
