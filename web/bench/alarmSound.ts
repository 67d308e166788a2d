// Browsers let a page sound only after it was touched once; until then an alarm has words and colour.
let context: AudioContext | null = null
const arm = (): void => {
  try {
    context ??= new AudioContext()
    void context.resume()
  } catch {
    // A device without sound still shows its alarms.
  }
}
window.addEventListener('pointerdown', arm, { once: true })
window.addEventListener('keydown', arm, { once: true })

/** Two short tones, low enough for old speakers, not to be mistaken for a phone. */
export function soundAlarm(): void {
  if (!context || context.state !== 'running') return
  const start = context.currentTime
  for (const [index, pitch] of [660, 495].entries()) {
    const [tone, volume] = [context.createOscillator(), context.createGain()]
    tone.frequency.value = pitch
    volume.gain.setValueAtTime(0.25, start + index * 0.28)
    volume.gain.exponentialRampToValueAtTime(0.001, start + index * 0.28 + 0.24)
    tone.connect(volume).connect(context.destination)
    tone.start(start + index * 0.28)
    tone.stop(start + index * 0.28 + 0.26)
  }
}
