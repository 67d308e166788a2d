/** The colours of the theme in force, for what is drawn without styles. */
export function inksOf() {
  const style = getComputedStyle(document.documentElement)
  const ink = (name: string): string => style.getPropertyValue(name).trim()
  return { ink: ink('--ink'), soft: ink('--soft'), line: ink('--line'), water: ink('--water'), harm: ink('--harm'), watch: ink('--watch') }
}
