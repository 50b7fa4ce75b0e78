import { MainsSide } from '@/stations/mains/mains-side';

export default function MainsSidePage() {
  return <MainsSide />;
}
