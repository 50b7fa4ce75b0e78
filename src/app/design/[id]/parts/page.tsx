import { redirect } from 'next/navigation';
import { roomPath } from '@/ui/places';

/** Where the rooms of Buy stood before each had an address. */
export default async function PartsPage({ params }: { params: Promise<{ id: string }> }) {
  redirect(roomPath((await params).id, 'pick'));
}
