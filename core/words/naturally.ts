const numeric = new Intl.Collator('en', { numeric: true })

/** Orders names as people count them: R2 before R10. */
export const naturally = (a: string, b: string): number => numeric.compare(a, b)
