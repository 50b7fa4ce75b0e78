// Everything that has to hold before a change lands: types, lint with the layer rules, unit tests, build, and the
// production build driven in a real browser. Ends non-zero on the first failure.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { ensureInstalled, run } from './ensure.mjs';

ensureInstalled();
ensureBrowser();
run('npx', ['next', 'typegen']);
run('npm', ['run', 'typecheck', '--silent']);
run('npm', ['run', 'lint', '--silent']);
run('npx', ['jest']);
run('node', ['scripts/build.mjs']);
run('npx', ['playwright', 'test']);

/** Debian's own Chromium. Installed when this may be done here, else the one command is printed. */
function ensureBrowser() {
  if (existsSync('/usr/bin/chromium')) return;
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium for the browser tests…');
    const quiet = {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    };
    spawnSync('apt-get', ['update'], quiet);
    run('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], quiet);
    return;
  }
  console.error(
    'The browser tests need Debian’s Chromium. Run this once:\n\n  sudo apt-get update && sudo apt-get install -y chromium\n',
  );
  process.exit(1);
}
