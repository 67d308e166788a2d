/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { act, cleanup, render, screen } from '@testing-library/react'

afterEach(cleanup)

test('the page follows the device, although it was drawn between the device’s change and its word', async () => {
  // As Chromium has it: a change that somebody read already is not told any more.
  const device = { isDark: false, isRead: true, tell: (_: { matches: boolean }) => undefined as void }
  const list = {
    get matches() {
      device.isRead = true
      return device.isDark
    },
    addEventListener: (_: 'change', listener: typeof device.tell) => (device.tell = listener),
  }
  Object.assign(window, { matchMedia: () => list })
  const { useTheme } = await import('./useTheme')
  const Lights = () => <p>{useTheme().isLightsOff ? 'lights off' : 'lights on'}</p>
  const { rerender } = render(<Lights />)
  expect([screen.getByText(/^lights/).textContent, document.documentElement.dataset.bsTheme]).toEqual(['lights on', 'light'])

  Object.assign(device, { isDark: true, isRead: false })
  rerender(<Lights />)
  if (!device.isRead) act(() => device.tell({ matches: true }))
  expect([screen.getByText(/^lights/).textContent, document.documentElement.dataset.bsTheme]).toEqual(['lights off', 'dark'])
})
