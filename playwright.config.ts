import { defineConfig } from '@playwright/test'

const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium'
const quiet = ['--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run', '--disable-quic', '--disable-gpu']
const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : []

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Patience only: a slow machine may take its time, what is asserted stays the same.
  timeout: 480_000,
  expect: { timeout: 45_000 },
  workers: 2,
  fullyParallel: true,
  reporter: [['list'], ['json']],
  use: { actionTimeout: 60_000, launchOptions: { executablePath: chromium, args: [...quiet, ...asRoot] }, colorScheme: 'light', trace: 'retain-on-failure' },
  projects: [
    // A phone has no keyboard; and arithmetic is the same on both.
    { name: 'phone', testIgnore: ['outage.spec.ts', 'keyboard.spec.ts', 'verdicts.spec.ts'], use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } },
    { name: 'desktop', testIgnore: 'outage.spec.ts', use: { viewport: { width: 1280, height: 800 } } },
    { name: 'outage', testMatch: 'outage.spec.ts', use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } },
  ],
})
