import { MainsSide } from '@/places/mains/mains-side';

export default function MainsSidePage() {
  return <MainsSide />;
}
