import type { fromEvent } from 'file-selector'
import { useEffect, useRef, useState } from 'react'

/** Files dropped anywhere on the page; true while something hovers over it. */
export function useFileDrop(onFiles: (files: File[]) => void): boolean {
  const [over, setOver] = useState(false)
  const handler = useRef(onFiles)
  useEffect(() => {
    handler.current = onFiles
  })
  useEffect(() => {
    let depth = 0
    let filesIn: typeof fromEvent | undefined
    const carries = (e: DragEvent) => e.dataTransfer?.types.includes('Files') ?? false
    const enter = (e: DragEvent) => {
      if (!carries(e)) return
      depth++
      // What reads folders is brought while the files still hover: a drop is read at once or not at all.
      if (!filesIn) void import('file-selector').then((m) => (filesIn = m.fromEvent))
      setOver(true)
    }
    const leave = () => {
      depth = Math.max(0, depth - 1)
      if (depth === 0) setOver(false)
    }
    const hover = (e: DragEvent) => carries(e) && e.preventDefault()
    const drop = (e: DragEvent) => {
      if (!carries(e)) return
      e.preventDefault()
      depth = 0
      setOver(false)
      // Folders too, with all that lies in them.
      if (filesIn) void filesIn(e).then((found) => handler.current(found.filter((f) => f instanceof File)))
      else handler.current([...(e.dataTransfer?.files ?? [])])
    }
    window.addEventListener('dragenter', enter)
    window.addEventListener('dragleave', leave)
    window.addEventListener('dragover', hover)
    window.addEventListener('drop', drop)
    return () => {
      window.removeEventListener('dragenter', enter)
      window.removeEventListener('dragleave', leave)
      window.removeEventListener('dragover', hover)
      window.removeEventListener('drop', drop)
    }
  }, [])
  return over
}
