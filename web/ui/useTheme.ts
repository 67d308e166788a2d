import { useSyncExternalStore } from 'react'

export type ThemeChoice = 'device' | 'light' | 'lights-off'
const slot = 'crate.theme'
const dark = window.matchMedia('(prefers-color-scheme: dark)')
// Told by the event alone. Asking the list again while a page is drawn would take the change from under the event in some
// browsers: it is not sent any more, and the page stays as bright as it was.
let isDeviceDark = dark.matches
const listeners = new Set<() => void>()

const chosen = (): ThemeChoice => {
  const kept = localStorage.getItem(slot)
  return kept === 'light' || kept === 'lights-off' ? kept : 'device'
}
const isDark = (): boolean => chosen() === 'lights-off' || (chosen() === 'device' && isDeviceDark)

/** Puts the theme on the page: Bootstrap's own attribute, so that its parts follow. */
function apply(): void {
  document.documentElement.dataset.bsTheme = isDark() ? 'dark' : 'light'
  document.querySelector('meta[name="theme-color"]')?.setAttribute('content', isDark() ? '#0d1413' : '#f3f0e6')
  for (const listener of listeners) listener()
}
dark.addEventListener('change', ({ matches }) => {
  isDeviceDark = matches
  apply()
})
apply()

/** The theme in force, and the switch by hand: lights on, lights off. */
export function useTheme(): { isLightsOff: boolean; toggle: () => void } {
  const isLightsOff = useSyncExternalStore((listener) => (listeners.add(listener), () => listeners.delete(listener)), isDark)
  const toggle = (): void => {
    localStorage.setItem(slot, isLightsOff ? 'light' : 'lights-off')
    apply()
  }
  return { isLightsOff, toggle }
}
