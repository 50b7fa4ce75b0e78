import { NoticePage } from '@/ui/notice-page';

export default function NotFound() {
  return (
    <NoticePage title="Not on the shelf">
      <p className="text-quiet">There is no such design here; it may have been deleted in another window.</p>
    </NoticePage>
  );
}
