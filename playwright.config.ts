import { defineConfig } from '@playwright/test'

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium'
const quiet = ['--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run', '--disable-quic', '--disable-gpu']
const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : []

const specOf = (name: string): string => `${name}.spec.ts`

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Patience only: a slow machine may take its time, what is asserted stays the same.
  timeout: 480_000,
  expect: { timeout: 45_000 },
  workers: 2,
  fullyParallel: true,
  // What failed is run once more for its trace, and has failed all the same.
  retries: 1,
  failOnFlakyTests: true,
  globalSetup: './scripts/bundleServer.mjs',
  reporter: [['list'], ['json']],
  use: { actionTimeout: 60_000, launchOptions: { executablePath: chromium, args: [...quiet, ...asRoot] }, colorScheme: 'light', trace: 'on-first-retry' },
  projects: [
    // Hand screens at both widths, every screen on the tablet that a fishroom shares; the rest where it is used most. Arithmetic and late answers are the same everywhere.
    { name: 'phone', testIgnore: ['outage', 'keyboard', 'verdicts', 'setup', 'lateAnswers', 'standing', 'reads', 'glance', 'racks', 'labels'].map(specOf), use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } },
    { name: 'desktop', testIgnore: ['outage', 'people', 'desk', 'firstStart', 'hands'].map(specOf), use: { viewport: { width: 1280, height: 800 } } },
    { name: 'tablet', testMatch: 'access.spec.ts', use: { viewport: { width: 820, height: 1180 }, hasTouch: true } },
    { name: 'outage', testMatch: 'outage.spec.ts', use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } },
  ],
})
