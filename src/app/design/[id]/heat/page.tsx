import { HeatStation } from '@/stations/heat/heat';

export default function HeatPage() {
  return <HeatStation />;
}
