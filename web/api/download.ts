import type { ProblemBody } from '../../core/problem/problem'
import { ApiProblem, Unreachable } from './ApiProblem'

export interface DownloadProgress {
  bytes: number
  /** Lines so far; a full export has one row a line. */
  rows: number
}

/**
 * Fetches a file that only a lead may have, tells how far it is, and hands it to the browser's downloads.
 * @returns the file's name.
 * @throws ApiProblem when the server refuses, Unreachable when it goes away, AbortError when cancelled.
 */
export async function download(path: string, staffId: string, onProgress: (progress: DownloadProgress) => void, signal: AbortSignal): Promise<string> {
  const response = await fetch(path, { credentials: 'same-origin', headers: { 'X-Recording': staffId }, signal }).catch((error: unknown) => {
    throw signal.aborted ? error : new Unreachable(error)
  })
  if (!response.ok || !response.body) throw new ApiProblem((await response.json()) as ProblemBody)
  const name = /filename="?([^"]+)"?/.exec(response.headers.get('Content-Disposition') ?? '')?.[1] ?? 'daily-crate'
  const parts: Uint8Array<ArrayBuffer>[] = []
  const progress = { bytes: 0, rows: 0 }
  const reader = response.body.getReader()
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    parts.push(part.value)
    progress.bytes += part.value.length
    for (const byte of part.value) if (byte === 10) progress.rows += 1
    onProgress({ ...progress })
  }
  save(new Blob(parts), name)
  return name
}

/** Hands a file to the browser's downloads. */
export function save(file: Blob, name: string): void {
  const address = URL.createObjectURL(file)
  const link = Object.assign(document.createElement('a'), { href: address, download: name })
  link.click()
  // The browser has taken the file over by then.
  setTimeout(() => URL.revokeObjectURL(address), 60_000)
}
