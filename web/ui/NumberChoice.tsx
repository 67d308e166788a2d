import { useState } from 'react'
import { Button } from './Button'

interface Props {
  /** What is counted, for the group's name. */
  label: string
  most: number
  onChoose: (number: number) => void
}

/** Any number in two touches: up to nine at once, more by its ten and then its one. */
export function NumberChoice({ label, most, onChoose }: Props) {
  const [tens, setTens] = useState<number | null>(null)
  const ones = tens === null ? Array.from({ length: 9 }, (_, index) => index + 1) : Array.from({ length: 10 }, (_, index) => tens + index)
  const steps = Array.from({ length: Math.min(9, Math.floor(most / 10)) }, (_, index) => 10 * (index + 1))
  const hundreds = Array.from({ length: Math.floor(most / 100) }, (_, index) => 100 * (index + 1)).slice(0, 9)
  const above = tens !== null && tens >= 100 && tens % 100 === 0
  return (
    <div className="number-pad" role="group" aria-label={label}>
      {ones.filter((number) => number <= most).map((number) => (
        <Button key={number} size="hand" onClick={() => onChoose(number)}>
          {number}
        </Button>
      ))}
      {tens === null &&
        [...steps, ...hundreds].map((number) => (
          <Button key={number} size="hand" className="is-more" aria-label={`${number} and more`} onClick={() => setTens(number)}>
            {number}+
          </Button>
        ))}
      {above &&
        steps.filter((number) => tens + number <= most).map((number) => (
          <Button key={number} size="hand" className="is-more" aria-label={`${tens + number} and more`} onClick={() => setTens(tens + number)}>
            {tens + number}+
          </Button>
        ))}
      {tens !== null && (
        <Button size="hand" className="is-more" onClick={() => setTens(null)}>
          fewer
        </Button>
      )}
    </div>
  )
}
