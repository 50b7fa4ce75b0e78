import { Load } from '@/stations/load/load';

export default function LoadPage() {
  return <Load />;
}
