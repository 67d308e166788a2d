import { Sheet } from '../ui/Sheet'

const keys: readonly { where: string; keys: readonly (readonly [string, string])[] }[] = [
  { where: 'Everywhere', keys: [['/ or Ctrl K', 'find anything'], ['?', 'this sheet'], ['Esc', 'close what is open']] },
  {
    where: 'Unpack',
    keys: [['Enter', 'record the bag'], ['0–9', 'count'], ['↑ ↓', 'one more, one fewer'], ['d', 'one dead'], ['c b w f', 'clock, bag, water, fish: a concern'], ['s', 'the same for several bags'], ['o', 'other fish'], ['u', 'undo']],
  },
  { where: 'A run', keys: [['Enter', 'the step in hand is done'], ['u', 'undo'], ['z', 'put the first alarm off']] },
  { where: 'Rounds', keys: [['Enter', 'all well, all ate'], ['Backspace', 'back to the tank before']] },
]

/** Every key there is. */
export function KeysSheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Sheet title="Keys" isOpen={isOpen} onClose={onClose}>
      <div className="keys-sheet">
        {keys.map(({ where, keys: own }) => (
          <section key={where}>
            <h3>{where}</h3>
            <dl className="facts">
              {own.map(([key, what]) => (
                <div key={key}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Sheet>
  )
}
