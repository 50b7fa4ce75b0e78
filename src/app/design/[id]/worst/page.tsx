import { WorstCase } from '@/places/worst/worst';

export default function WorstCasePage() {
  return <WorstCase />;
}
