import { useEffect, useRef } from 'react'
import { useKept } from '../ui/useKept'
import type { Spoken } from './spokenWords'

export interface SpeechOnDevice {
  canSpeak: boolean
  isOn: boolean
  toggle: () => void
}

/**
 * Says aloud what there is to say, once for each thing, by the browser's own voice, without a network; off until somebody turns it on for
 * this device.
 */
export function useSpeech(spoken: Spoken | null): SpeechOnDevice {
  const [kept, keep] = useKept<boolean>('crate.speaks')
  const isOn = kept === true
  const canSpeak = 'speechSynthesis' in window
  const about = spoken?.about ?? null
  const words = useRef('')
  useEffect(() => {
    words.current = spoken?.words ?? ''
  })
  useEffect(() => {
    if (!isOn || !canSpeak || about === null) return
    const said = new SpeechSynthesisUtterance(words.current)
    said.lang = 'en'
    // What is not true any more is not said to its end.
    window.speechSynthesis.cancel()
    window.speechSynthesis.speak(said)
    return () => window.speechSynthesis.cancel()
  }, [isOn, canSpeak, about])
  return { canSpeak, isOn, toggle: () => keep(!isOn) }
}
