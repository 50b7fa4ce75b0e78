import { Load } from '@/places/load/load';

export default function LoadPage() {
  return <Load />;
}
