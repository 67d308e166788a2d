import type { ToolView } from '../../core/contacts/contactView'
import { Button } from '../ui/Button'
import { Tick } from '../ui/Field'

interface Props {
  tools: readonly ToolView[]
  chosen: string | null
  onChoose: (toolSetId: string | null) => void
  waterGoesAlong: boolean
  onWater: (goesAlong: boolean) => void
}

/** With which tool set, and whether their water goes along: both are contacts. */
export function NetPicker({ tools, chosen, onChoose, waterGoesAlong, onWater }: Props) {
  return (
    <section className="net-picker" aria-label="With what">
      {tools.length > 0 && (
        <>
          <h3>Tool set</h3>
          <div className="net-list" role="group" aria-label="Tool set">
            {tools.map(({ id, name, state, carries }) => (
              <Button key={id} size="hand" aria-pressed={chosen === id} onClick={() => onChoose(chosen === id ? null : id)}>
                {name}
                <small>{state === 'used' ? `was in ${carries.slice(0, 2).join(', ')}${carries.length > 2 ? ' …' : ''}` : state}</small>
              </Button>
            ))}
          </div>
        </>
      )}
      <Tick label="their water goes along" isOn={waterGoesAlong} onChange={onWater} />
    </section>
  )
}
