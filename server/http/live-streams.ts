const open = new Set<() => void>()

/** Answers that stay open: each says how it is closed, so that the application can end without waiting for them. */
export const liveStreams = {
  /** Notes a stream; the returned function forgets it. */
  open(close: () => void): () => void {
    open.add(close)
    return () => open.delete(close)
  },
  closeAll(): void {
    for (const close of open) close()
    open.clear()
  },
}
