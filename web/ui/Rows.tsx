import { Children, isValidElement, type ReactNode } from 'react'
import { Link } from 'react-router'
import { Apart } from './Apart'

interface SectionProps {
  title: string
  count?: number
  /** What an empty section means; left out where a section without rows is not shown at all. */
  nothing?: string
  children?: ReactNode
}

/** Records under a title, ruled like a notebook; one that breaks leaves the others. */
export function RowSection({ title, count = 0, nothing, children }: SectionProps) {
  const rows = Children.toArray(children)
  if (rows.length === 0 && nothing === undefined) return null
  return (
    <section className="row-section">
      <h2>
        {title} {count > 0 && <strong>{count}</strong>}
      </h2>
      {rows.length === 0 ? <p className="aside-word">{nothing}</p> : (
        <ul className="record-list">
          {rows.map((row, index) => (
            <Apart key={isValidElement(row) ? row.key : index} what={`A row of “${title}”`} of={row} isRow>
              {row}
            </Apart>
          ))}
        </ul>
      )}
    </section>
  )
}

/** What a row asks for; each has a shape of its own beside its colour. */
export type RowMark = 'act' | 'plan' | 'watch' | 'harm' | 'hold'

/** One record that opens its place. */
export const Row = ({ to, mark, children, aside }: { to: string; mark?: RowMark; children: ReactNode; aside?: ReactNode }) => (
  <li className="record">
    <RowLink {...{ to, mark, aside }}>{children}</RowLink>
  </li>
)

/** The part of a record that opens its place, where something else stands beside it. */
export const RowLink = ({ to, mark, children, aside }: { to: string; mark?: RowMark | undefined; children: ReactNode; aside?: ReactNode }) => (
  <Link to={to} className={`record-row ${mark ? `is-${mark}` : ''}`}>
    <span>{children}</span>
    {aside && <span>{aside}</span>}
  </Link>
)
