import { HeatStation } from '@/places/heat/heat';

export default function HeatPage() {
  return <HeatStation />;
}
