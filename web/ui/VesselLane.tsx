interface Props {
  /** How full it is against the most it will hold on this run, 0 to 1. */
  filled: number
  /** How near its water is to the tank's, 0 to 1. */
  mixed: number
  /** Where on the way readings were taken, 0 to 1. */
  readings: readonly number[]
  words: string
}

const percent = (share: number): string => `${100 * Math.min(1, Math.max(0, share))}%`

/** A vessel laid on its side: water runs in from the left and takes on the tank's colour; a tick for each reading. Round, because it holds water. */
export function VesselLane({ filled, mixed, readings, words }: Props) {
  return (
    <div className="vessel-lane" role="img" aria-label={words}>
      <span className="lane-glass">
        <span className="lane-water" style={{ width: percent(filled), opacity: 0.35 + 0.65 * Math.min(1, Math.max(0, mixed)) }} />
      </span>
      {readings.map((share, index) => (
        <span key={index} className="lane-tick" style={{ left: percent(share) }} />
      ))}
    </div>
  )
}
