import type { Page } from '@playwright/test'
import axe, { type AxeResults, type RunOptions } from 'axe-core'

const everything: RunOptions = { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'], resultTypes: ['violations'] }
/** What the other theme can change: it has the same words in the same order, in other colours. */
const colours: RunOptions = { runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] }, resultTypes: ['violations'] }

/** What stands in the way of reading or using what is on screen now, in both themes; nothing is the good answer. */
export async function lookAt(page: Page): Promise<string[]> {
  const found: string[] = []
  for (const [theme, options] of [['dark', colours], ['light', everything]] as const) {
    await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' })
    await page.waitForFunction((wanted) => document.documentElement.dataset.bsTheme === wanted, theme)
    await page.evaluate(() => Promise.all(document.getAnimations().map((animation) => animation.finished.catch(() => null))))
    const { violations } = await analyse(page, options)
    found.push(...violations.filter(({ impact }) => impact === 'serious' || impact === 'critical').map(({ id, nodes }) => `${theme} ${id}: ${nodes[0]?.html}`))
  }
  found.push(...(await page.evaluate(misfits)))
  return found.map((finding) => `${page.url()} ${finding}`)
}

// Put into a page once and asked twice: bringing it there takes as long as asking.
async function analyse(page: Page, options: RunOptions): Promise<AxeResults> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  return page.evaluate((asked) => (window as unknown as { axe: typeof axe }).axe.run(document, asked), options)
}

/** What does not fit: a page that scrolls sideways, words that are cut off or stand outside the glass. Runs in the page. */
function misfits(): string[] {
  const found: string[] = []
  const glass = document.documentElement.clientWidth
  if (document.documentElement.scrollWidth > glass) found.push(`scrolls sideways: ${document.documentElement.scrollWidth} px on ${glass}`)
  const scrolls = (element: Element): boolean => /auto|scroll/.test(getComputedStyle(element).overflowX) && element.scrollWidth > element.clientWidth
  const isHiding = (element: Element): boolean => {
    const style = getComputedStyle(element)
    return /hidden|clip/.test(style.overflowX) || /hidden|clip/.test(style.overflowY)
  }
  const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = words.nextNode(); node; node = words.nextNode()) {
    const holder = node.parentElement
    if (!holder || !node.textContent?.trim() || !holder.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
    const range = document.createRange()
    range.selectNodeContents(node)
    const box = range.getBoundingClientRect()
    if (box.width === 0) continue
    // Words for screen readers alone stand in a box of one pixel.
    for (let around: Element | null = holder; around; around = around.parentElement) {
      if (scrolls(around)) break
      const frame = around.getBoundingClientRect()
      if (frame.width <= 1 || frame.height <= 1) break
      const isCut = isHiding(around) && around !== document.body && (box.right > frame.right + 1 || box.left < frame.left - 1 || (box.bottom > frame.bottom + 2 && box.top < frame.bottom && getComputedStyle(around).overflowY !== 'auto'))
      if (isCut) found.push(`cut off: "${node.textContent.trim().slice(0, 60)}" in ${around.tagName.toLowerCase()}.${around.className}`)
      if (around === document.documentElement && (box.right > glass + 1 || box.left < -1)) found.push(`outside the glass: "${node.textContent.trim().slice(0, 60)}"`)
      if (isCut) break
    }
  }
  return found
}
