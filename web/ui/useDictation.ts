import { useEffect, useRef, useState } from 'react'

/** As browsers have it that listen on the device itself. */
interface Recognition {
  lang: string
  processLocally: boolean
  onresult: ((event: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null
  onend: (() => void) | null
  onerror: (() => void) | null
  start(): void
  stop(): void
}
interface RecognitionClass {
  new (): Recognition
  available?(options: { langs: string[]; processLocally: boolean }): Promise<string>
}
const lang = 'en'

/**
 * Writes down what is said, where the browser can do so on the device itself: a room's voices go to nobody. Elsewhere a
 * phone's own keyboard does it in any field.
 * @param onWords - what was said, once somebody stops.
 */
export function useDictation(onWords: (words: string) => void) {
  const [isOffered, setOffered] = useState(false)
  const [listening, setListening] = useState<Recognition | null>(null)
  const tell = useRef(onWords)
  useEffect(() => void (tell.current = onWords))
  useEffect(() => {
    const known = recognition()
    if (!known?.available) return
    let isGone = false
    void known.available({ langs: [lang], processLocally: true }).then((is) => isGone || setOffered(is === 'available'), () => undefined)
    return () => void (isGone = true)
  }, [])
  useEffect(() => () => listening?.stop(), [listening])

  function listen(): void {
    const Known = recognition()
    if (!Known) return
    const begun = Object.assign(new Known(), { lang, processLocally: true })
    begun.onresult = ({ results }) => tell.current(Array.from(results, (each) => each[0]?.transcript.trim() ?? '').filter(Boolean).join(' '))
    begun.onend = begun.onerror = () => setListening(null)
    begun.start()
    setListening(begun)
  }
  return { isOffered, isListening: listening !== null, toggle: () => (listening ? listening.stop() : listen()) }
}

const recognition = (): RecognitionClass | undefined => (window as unknown as { SpeechRecognition?: RecognitionClass }).SpeechRecognition
