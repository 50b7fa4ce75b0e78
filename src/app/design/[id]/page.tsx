import { Supply } from '@/places/supply/supply';

export default function SupplyPage() {
  return <Supply />;
}
