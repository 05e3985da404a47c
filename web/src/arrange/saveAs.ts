/** Hands a text to the browser as a download; the name is made safe for every file system. */
export function saveAs(name: string, text: string, type: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }))
  const link = document.createElement('a')
  link.href = url
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-')
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
