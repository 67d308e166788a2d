import { useRef, type PointerEvent } from 'react'

/** A stroke of at least so many pixels, and three times as far across as up or down: a scroll is none. */
const [leastPx, slant] = [90, 3]

interface Swipes {
  onLeft?: () => void
  onRight?: () => void
}

/** Strokes of a finger across a card. A mouse drags nothing, and a stroke that begins in a field is a choice of words. */
export function useSwipe({ onLeft, onRight }: Swipes) {
  const from = useRef<{ id: number; x: number; y: number } | null>(null)
  return {
    onPointerDown: ({ pointerId, pointerType, clientX, clientY, target }: PointerEvent): void => {
      const isField = target instanceof Element && target.closest('input, textarea, [role=dialog]') !== null
      from.current = pointerType === 'touch' && !isField ? { id: pointerId, x: clientX, y: clientY } : null
    },
    onPointerUp: ({ pointerId, clientX, clientY }: PointerEvent): void => {
      const begun = from.current
      from.current = null
      if (begun?.id !== pointerId) return
      const [across, along] = [clientX - begun.x, Math.abs(clientY - begun.y)]
      if (Math.abs(across) < leastPx || Math.abs(across) < along * slant) return
      if (across < 0) onLeft?.()
      else onRight?.()
    },
    onPointerCancel: (): void => void (from.current = null),
  }
}
