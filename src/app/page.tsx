import { SHELF_PAGE } from '@/places/shelf/page-size';
import { Shelf } from '@/places/shelf/shelf';
import { backupReminder } from '@/places/shelf/backup-reminder';
import { lastBackup } from '@/server/backup';
import { database, databaseTrouble } from '@/server/database';
import { store } from '@/server/store';
import { FileTrouble } from '@/ui/file-trouble';

export const dynamic = 'force-dynamic';

export default function Page() {
  const trouble = databaseTrouble();
  if (trouble && trouble.kind !== 'newer')
    return <FileTrouble kind={trouble.kind} sentence={trouble.message} file={trouble.file} copy={trouble.copy} />;
  const entries = store().list();
  return (
    <Shelf
      entries={entries}
      drawn={store().summaries(entries.slice(0, SHELF_PAGE).map((e) => e.id))}
      notice={trouble?.message ?? null}
      backup={
        trouble
          ? null
          : backupReminder(
              lastBackup(database()),
              entries.map((e) => e.updatedAt),
            )
      }
    />
  );
}
