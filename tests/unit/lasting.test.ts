import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { demoDesigns } from '@/core/design/demo-designs';

const tool = (name: string, ...args: string[]) =>
  spawnSync(process.execPath, ['scripts/tool.mjs', name, ...args], { encoding: 'utf8', env: { ...process.env } });

test('killed in the midst of edits, pictures, a backup, a restore and a migration, nothing acknowledged is lost', () => {
  const ran = tool('kills', '10');
  expect(ran.stdout).toContain(
    '10 kills during edits, photos, backup, restore, migration: nothing lost, every file whole',
  );
  expect(ran.status).toBe(0);
});

test('the command line writes what stays with the box, and takes each of its files back', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'ember-sheet-'));
  const file = path.join(folder, 'clock.json');
  writeFileSync(file, JSON.stringify({ ...demoDesigns()[0], colour: 'green' }));
  const made = tool('design', file, '--sheet', '--verdicts', '--share', '--label', '--out', folder);
  expect(made.stderr).toContain('colour is nothing a design has: left out.');
  expect(made.status).toBe(0);
  const names = ['sheet.pdf', 'sheet.md', 'verdicts.csv', 'share.html', 'label.svg', 'label.pdf'];
  for (const name of names) expect(existsSync(path.join(folder, name))).toBe(true);
  expect(readFileSync(path.join(folder, 'share.html'), 'utf8')).toContain('Slave-clock line, stairwell');
  for (const name of ['share.html', 'sheet.md']) {
    const again = tool('design', path.join(folder, name), '--bom', '--out', folder);
    expect([name, again.status, again.stderr]).toEqual([name, 0, '']);
  }
  const none = tool('design', path.join(folder, 'verdicts.csv'), '--bom', '--out', folder);
  expect(none.stderr).toContain('there is no design of this program in this file');
  expect(none.status).toBe(2);
  rmSync(folder, { recursive: true });
});
