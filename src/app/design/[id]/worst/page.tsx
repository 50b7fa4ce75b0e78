import { WorstCase } from '@/stations/worst/worst';

export default function WorstCasePage() {
  return <WorstCase />;
}
