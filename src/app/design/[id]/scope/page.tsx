import { Scope } from '@/places/scope/scope';

export default function Page() {
  return <Scope />;
}
