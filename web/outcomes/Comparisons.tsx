import { theOthers, type ComparisonShown, type OutcomesQuestion, type OutcomesView } from '../../core/outcomes/outcomesPage'
import { plural } from '../../core/words/plural'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { percentOf } from './survivalChart'

interface Props {
  view: OutcomesView
  question: OutcomesQuestion
  onPair: (a: string, b: string) => void
  onAll: () => void
}

/** Every comparison of the page, the surest first; how many were made is said, since some look apart by chance. */
export function Comparisons({ view: { comparisons, tests, groups }, question: { pair }, onPair, onAll }: Props) {
  if (comparisons.length === 0) return null
  const [a, b] = pair ?? ['', '']
  return (
    <section className="row-section outcome-comparisons">
      <h2>Compared</h2>
      <p className="aside-word">
        {tests === 0 ? 'Nothing here has crates enough for a test.' : `${plural(tests, 'test')} on this page, with result or not; words allow for that.`}
      </p>
      <ul className="record-list">
        {comparisons.map((each) => (
          <ComparedRow key={`${each.a} ${each.b}`} compared={each} />
        ))}
      </ul>
      {groups.length > 2 && (
        <div className="outcome-pair">
          <ChoiceField label="Two against each other" value={a} onChange={(value) => (value === '' ? onAll() : onPair(value, b !== '' && b !== value ? b : (groups.find(({ name }) => name !== value)?.name ?? '')))}>
            <option value="">each against the others</option>
            {groups.map(({ name }) => (
              <option key={name}>{name}</option>
            ))}
          </ChoiceField>
          {pair && (
            <ChoiceField label="Against" value={b} onChange={(value) => onPair(a, value)}>
              {groups.filter(({ name }) => name !== a).map(({ name }) => (
                <option key={name}>{name}</option>
              ))}
            </ChoiceField>
          )}
          {pair && (
            <Button look="quiet" onClick={onAll}>
              each against the others again
            </Button>
          )}
        </div>
      )}
    </section>
  )
}

const marks: Readonly<Record<string, string>> = { clear: 'is-sure', likely: 'is-sure', 'leans to': 'is-leaning' }

function ComparedRow({ compared: { a, b, word, sentence, comparison, p, q } }: { compared: ComparisonShown }) {
  const { adjusted, used, difference, low, high, test } = comparison
  const judged = used === 'adjusted' && adjusted ? adjusted : { difference, low, high }
  return (
    <li className={`record compared ${marks[word] ?? ''}`}>
      <p>
        {b === theOthers && <strong>{a}. </strong>}
        {sentence}
      </p>
      <details>
        <summary>why</summary>
        <ul>
          <li>
            {a}: {crates(comparison.a)}; {b}: {crates(comparison.b)}.
          </li>
          {difference !== null && <li>Over all fish: {signed(difference)} ({signed(low)} to {signed(high)}).</li>}
          {adjusted && used === 'adjusted' && <li>Like for like, {plural(adjusted.strata, 'kind')} in common, {percentOf(adjusted.share)} of the fish: {signed(judged.difference)} ({signed(judged.low)} to {signed(judged.high)}).</li>}
          {test && q !== null && <li>Sharing the crates out anew {test.kind === 'exact' ? `in all ${test.arrangements.toLocaleString('en')} ways` : '9,999 times'} looks so in {percentOf(p)} of them; after all comparisons of the page {percentOf(q)}.</li>}
          {comparison.attributed > 0 && <li>{percentOf(comparison.attributed)} of the deaths were attributed, not seen.</li>}
        </ul>
      </details>
    </li>
  )
}

const crates = ({ crates: many, fish, dead, survival }: { crates: number; fish: number; dead: number; survival: number | null }): string => `${plural(many, 'crate')}, ${fish} fish, ${Math.round(dead * 10) / 10} dead, ${survival === null ? 'survival not known yet' : `${percentOf(survival)} alive`}`
const signed = (difference: number | null): string => (difference === null ? 'not known' : `${difference > 0 ? '+' : difference < 0 ? '−' : ''}${(100 * Math.abs(difference)).toFixed(1)} in a hundred`)
