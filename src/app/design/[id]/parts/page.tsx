import { Parts } from '@/stations/parts/parts';

export default function PartsPage() {
  return <Parts />;
}
