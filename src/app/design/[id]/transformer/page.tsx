import type { Metadata } from 'next';
import { TransformerWays } from '@/places/parts/transformer-ways';
import { Room } from '@/ui/room';

export const metadata: Metadata = { title: 'Transformer' };

export default function TransformerPage() {
  return (
    <Room name="Transformer">
      <TransformerWays />
    </Room>
  );
}
