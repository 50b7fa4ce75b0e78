import { defineConfig } from '@playwright/test';
import { HEADLESS } from './src/cli/headless';

const PORT = 3417;

export default defineConfig({
  testDir: 'tests/e2e',
  testMatch: '**/*.spec.ts',
  workers: 1,
  timeout: 240_000,
  expect: { timeout: 45_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: HEADLESS,
  },
});

export { PORT };
