import { Button } from './Button'
interface Props {
  label: string
  value: number
  max: number
  onChange: (value: number) => void
}

/** A large count with a button on either side; digits may be typed into it too. */
export function Stepper({ label, value, max, onChange }: Props) {
  const set = (next: number): void => onChange(Math.min(max, Math.max(0, next)))
  return (
    <div className="stepper" role="group" aria-label={label}>
      <Button look="bare" className="round-button" aria-label={`one less ${label}`} onClick={() => set(value - 1)} disabled={value === 0}>
        −
      </Button>
      <input
        className="figure"
        inputMode="numeric"
        aria-label={label}
        value={value}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => set(Number(event.currentTarget.value.replace(/\D/g, '').slice(0, 5) || 0))}
      />
      <Button look="bare" className="round-button" aria-label={`one more ${label}`} onClick={() => set(value + 1)}>
        +
      </Button>
    </div>
  )
}
