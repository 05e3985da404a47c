/** Hands a text to the browser as a download; the name is made safe for every file system. */
export function saveAs(name: string, text: string, type: string): void {
  download(name, new Blob([text], { type: `${type};charset=utf-8` }))
}

/** The same for any content. */
export function download(name: string, content: Blob): void {
  const url = URL.createObjectURL(content)
  const link = document.createElement('a')
  link.href = url
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-')
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
