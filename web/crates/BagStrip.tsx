import { useEffect, useRef } from 'react'
import type { BagView, CrateView } from '../../core/crates/crateView'
import { dangerOf } from '../../core/species/handling'
import { BagGlyph } from '../ui/BagGlyph'

/** All bags of a crate in a row, opened ones with water in them; the current one is kept in sight. */
export function BagStrip({ crate, currentId }: { crate: CrateView; currentId: string | null }) {
  const current = useRef<HTMLLIElement>(null)
  useEffect(() => void current.current?.scrollIntoView({ block: 'nearest', inline: 'center' }), [currentId])
  const dangers = new Map(crate.lines.map(({ id, handling }) => [id, dangerOf(handling)]))
  return (
    <ol className="bag-strip" aria-label="Bags" tabIndex={0}>
      {crate.bags.map((bag) => (
        <li key={bag.id} ref={bag.id === currentId ? current : null}>
          <BagGlyph isOpened={bag.record !== null} isCurrent={bag.id === currentId} dead={bag.record?.dead ?? 0} isDanger={Boolean(dangers.get(bag.lineId))} label={[labelOf(bag), dangers.get(bag.lineId)].filter(Boolean).join(', ')} />
        </li>
      ))}
    </ol>
  )
}

const labelOf = ({ number, record }: BagView): string => (record ? `bag ${number}: ${record.alive} alive, ${record.dead} dead` : `bag ${number}: unopened`)
