import { HeatPlace } from '@/places/heat/heat';

export default function HeatPage() {
  return <HeatPlace />;
}
