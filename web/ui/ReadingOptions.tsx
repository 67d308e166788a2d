import { readingKinds, readingNames } from '../../core/room/glass.schema'

/** What can be read at a tank, as options of a select. */
export function ReadingOptions() {
  return readingNames.map((name) => (
    <option key={name} value={name}>
      {readingKinds[name].label}
    </option>
  ))
}
