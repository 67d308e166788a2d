import { BroadcastChannel, createLeaderElection } from 'broadcast-channel'
import { eventsApi } from '../../core/commands/events.api'
import { silenceMs, type Alive, type Hello, type Told } from '../../core/commands/stream'
import { isStreamOpen, setStreamOpen } from './streamState'

/** What the pages of one browser tell each other. */
type Word = { kind: 'heard'; told: Told } | { kind: 'opened'; hello: Hello } | { kind: 'closed' } | { kind: 'asked' }

export interface Listener {
  /** Something was written. */
  onTold(told: Told): void
  /** The stream stands, for the first time or again. */
  onOpen(hello: Hello): void
}

const watchEveryMs = 10_000

/**
 * Hears of changes through one stream for all pages of this browser: over plain http a browser keeps six connections to a
 * server, and a page with a stream of its own holds one of them for good. One page has it and tells the others; when it is
 * closed, another one takes over.
 * @returns how to stop.
 */
export function shareStream({ onTold, onOpen }: Listener): () => void {
  const pages = new BroadcastChannel<Word>('crate.changes', { webWorkerSupport: false })
  const election = createLeaderElection(pages)
  const say = (word: Word): void => void pages.postMessage(word).catch(() => undefined)
  let stream: EventSource | null = null
  let hello: Hello | null = null
  let heardAtMs = 0
  let isOver = false
  function take(word: Word): void {
    if (word.kind === 'heard' && isStreamOpen()) onTold(word.told)
    else if (word.kind === 'closed') setStreamOpen(false)
    else if (word.kind === 'opened') {
      setStreamOpen(true)
      onOpen(word.hello)
    } else if (word.kind === 'asked' && hello !== null) say({ kind: 'opened', hello })
  }
  const both = (word: Word): void => {
    take(word)
    say(word)
  }
  function close(): void {
    stream?.close()
    hello = null
    both({ kind: 'closed' })
  }
  function open(): void {
    heardAtMs = Date.now()
    stream = new EventSource(eventsApi.listen.path)
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      heardAtMs = Date.now()
      const said = JSON.parse(data) as Hello | Told | Alive
      if ('touched' in said) both({ kind: 'heard', told: said })
      else if ('books' in said) both({ kind: 'opened', hello: (hello = said) })
    }
    // It opens itself again, as long as the server lets it.
    stream.onerror = () => {
      hello = null
      both({ kind: 'closed' })
    }
  }
  pages.onmessage = take
  // A page that comes later asks whether one has the stream already.
  say({ kind: 'asked' })
  void election.awaitLeadership().then(() => void (isOver || open()))
  // A phone that slept, or lost its network without a word, has a stream on which nothing ever comes.
  const watch = setInterval(() => {
    if (stream === null || Date.now() - heardAtMs < silenceMs) return
    close()
    open()
  }, watchEveryMs)
  return () => {
    isOver = true
    clearInterval(watch)
    if (stream) close()
    setStreamOpen(false)
    void election.die().then(() => pages.close()).catch(() => undefined)
  }
}
