import { useRef, type TouchEvent } from 'react'

/** A stroke of at least so many pixels, and three times as far across as up or down: a scroll is none. */
const [leastPx, slant] = [90, 3]

interface Swipes {
  onLeft?: () => void
  onRight?: () => void
}

/** Strokes of one finger across a card. One that begins in a field is a choice of words. */
export function useSwipe({ onLeft, onRight }: Swipes) {
  const from = useRef<{ x: number; y: number } | null>(null)
  return {
    onTouchStart: ({ touches, target }: TouchEvent): void => {
      const isField = target instanceof Element && target.closest('input, textarea, [role=dialog]') !== null
      const [finger] = touches.length === 1 && !isField ? [touches[0]] : []
      from.current = finger ? { x: finger.clientX, y: finger.clientY } : null
    },
    onTouchEnd: ({ changedTouches }: TouchEvent): void => {
      const [begun, finger] = [from.current, changedTouches[0]]
      from.current = null
      if (!begun || !finger) return
      const [across, along] = [finger.clientX - begun.x, Math.abs(finger.clientY - begun.y)]
      if (Math.abs(across) < leastPx || Math.abs(across) < along * slant) return
      if (across < 0) onLeft?.()
      else onRight?.()
    },
    onTouchCancel: (): void => void (from.current = null),
  }
}
