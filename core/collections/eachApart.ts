/**
 * Does something with each row, and a fault stays in its row: the others are done all the same.
 * @param broken - what stands for a row that cannot be done; null leaves it out.
 */
export function eachApart<Row, Done>(rows: readonly Row[], one: (row: Row) => Done, broken: (row: Row) => Done | null): Done[] {
  return rows.flatMap((row) => {
    try {
      return [one(row)]
    } catch {
      const stands = broken(row)
      return stands === null ? [] : [stands]
    }
  })
}
