import { useState } from 'react'
import { Button } from './Button'

interface Props {
  label: string
  most: number
  /** Numbers up to this one are there at once. */
  direct?: number
  /** What it likely is: the numbers about it stand first. */
  near?: number | null
  onChoose: (number: number) => void
}

const row = (from: number, count: number, step = 1): number[] => Array.from({ length: count }, (_, index) => from + index * step)

/** Any number in few touches: small ones and those about what it likely is at once, more by its ten and then its one. */
export function NumberChoice({ label, most, direct = 9, near = null, onChoose }: Props) {
  const [base, setBase] = useState(0)
  const isHundreds = base === -1
  const likely = near !== null && base === 0 ? row(Math.max(1, near - 2), 5).filter((number) => number > direct || near > direct) : []
  const ones = isHundreds ? [] : base === 0 ? row(1, direct).filter((number) => !likely.includes(number)) : row(base, 10)
  const tens = isHundreds ? row(100, 9, 100) : base === 0 ? row(10, 9, 10).filter((ten) => ten + 9 > direct) : base % 100 === 0 ? row(base + 10, 9, 10) : []
  return (
    <div className="number-pad" role="group" aria-label={label}>
      {[...likely, ...ones].filter((number) => number <= most).map((number) => (
        <Button key={number} size="hand" className={likely.includes(number) ? 'is-likely' : undefined} onClick={() => onChoose(number)}>
          {number}
        </Button>
      ))}
      {tens.filter((ten) => ten <= most).map((ten) => (
        <Button key={`${ten}+`} size="hand" className="is-more" aria-label={`${ten} and more`} onClick={() => setBase(ten)}>
          {ten}+
        </Button>
      ))}
      {base === 0 && most >= 100 && (
        <Button size="hand" className="is-more" aria-label="hundreds" onClick={() => setBase(-1)}>
          100+
        </Button>
      )}
      {base !== 0 && (
        <Button size="hand" className="is-more" onClick={() => setBase(0)}>
          fewer
        </Button>
      )}
    </div>
  )
}
