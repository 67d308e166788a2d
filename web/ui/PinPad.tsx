import { useEffect, useState } from 'react'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from './Button'
import { Problem } from './Notice'

const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0']

/** Takes a PIN by thumb or by keys, and says beside it what is wrong. */
export function PinPad({ onPin, label = 'record' }: { onPin: (pin: string) => Promise<void>; label?: string }) {
  const [pin, setPin] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const type = (digit: string): void => {
    setProblem(null)
    setPin((typed) => (typed + digit).slice(0, 8))
  }
  const erase = (): void => setPin((typed) => typed.slice(0, -1))
  const submit = async (): Promise<void> => {
    try {
      await onPin(pin)
    } catch (error) {
      setProblem(sentenceOf(error))
      setPin('')
    }
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (/^\d$/.test(event.key)) type(event.key)
      else if (event.key === 'Backspace') erase()
      else if (event.key === 'Enter' && pin.length >= 4 && !(event.target instanceof HTMLButtonElement)) void submit()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return (
    <div className="pin-pad" role="group" aria-label="PIN">
      <p className="pin-dots" aria-live="polite">
        <span className="visually-hidden">{pin.length} digits entered</span>
        <span aria-hidden="true">{pin ? '●'.repeat(pin.length) : 'PIN'}</span>
      </p>
      <Problem>{problem}</Problem>
      <div className="pin-keys">
        {digits.map((digit) => (
          <Button key={digit} size="hand" onClick={() => type(digit)}>
            {digit}
          </Button>
        ))}
        <Button size="hand" aria-label="erase a digit" onClick={erase}>
          ←
        </Button>
        <Button look="act" size="hand" disabled={pin.length < 4} onClick={() => void submit()}>
          {label}
        </Button>
      </div>
    </div>
  )
}
