let isOpen = false

/** Whether this browser hears of changes: what it has read stands until it is told otherwise. */
export const isStreamOpen = (): boolean => isOpen
export const setStreamOpen = (open: boolean): void => {
  isOpen = open
}
