/** What can be pressed; a label stands for its field. */
const pressable = 'button, a[href], label, summary, input, select, textarea, [role="button"]'

/** A finger that has gone further than this has changed its mind, pixels. */
const slipPx = 30

const pressedOf = (target: EventTarget | null): HTMLElement | null => (target instanceof Element ? target.closest<HTMLElement>(pressable) : null)

/**
 * A press belongs to what stood under the finger when it came down. Rows come in from other devices while one presses, and
 * by themselves browsers give the press to whatever stands there when the finger is lifted: with a mouse it is lost, with
 * a finger it falls on the wrong fish. Once for the whole interface, for as long as its page stands.
 */
export function keepPresses(page: Document): void {
  let down: { on: HTMLElement | null; x: number; y: number } | null = null
  const remember = ({ target, clientX, clientY, isPrimary }: PointerEvent): void => {
    if (isPrimary) down = { on: pressedOf(target), x: clientX, y: clientY }
  }
  const give = (click: MouseEvent): void => {
    const from = down
    // Keys, and clicks that programs make, come without a finger.
    if (!click.isTrusted || click.detail === 0 || from === null) return
    down = null
    const on = pressedOf(click.target)
    if (on === from.on) return
    click.preventDefault()
    click.stopPropagation()
    if (Math.hypot(click.clientX - from.x, click.clientY - from.y) <= slipPx) from.on?.click()
  }
  page.addEventListener('pointerdown', remember, true)
  page.addEventListener('click', give, true)
}
