import type { MoveLine } from '../../core/moves/moveWords'
import { InUnits } from './InUnits'
import './CheckLines.css'

/** What speaks against a move, a line each: what a lead decides, what is to be minded, what is good to know. */
export const CheckLines = ({ lines }: { lines: readonly MoveLine[] }) => (
  <ul className="check-lines">
    {lines.map((line) => (
      <li key={line.code} className={`is-${line.level}`}>
        <InUnits>{line.words}</InUnits>
      </li>
    ))}
  </ul>
)
