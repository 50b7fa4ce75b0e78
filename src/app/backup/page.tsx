import type { Metadata } from 'next';
import { Backup } from '@/places/backup/backup';
import { copiesBeside, lastBackup } from '@/server/backup';
import { database, databaseFile, databaseTrouble } from '@/server/database';
import { FileTrouble } from '@/ui/file-trouble';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Backup' };

export default function Page() {
  const trouble = databaseTrouble();
  if (trouble)
    return <FileTrouble kind={trouble.kind} sentence={trouble.message} file={trouble.file} copy={trouble.copy} />;
  return <Backup last={lastBackup(database())} copies={copiesBeside(databaseFile())} />;
}
