import { Parts } from '@/places/parts/parts';

export default function PartsPage() {
  return <Parts />;
}
