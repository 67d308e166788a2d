export const runKey = (runId: string) => ['bench', 'run', runId] as const
export const subjectKey = (query: string) => ['bench', 'subject', query] as const
