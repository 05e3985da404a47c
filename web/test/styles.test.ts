import { readdirSync, readFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'

const src = fileURLToPath(new URL('../src', import.meta.url))
const files = readdirSync(src, { recursive: true, encoding: 'utf8' })
// The lesson file is a page of its own, with a look of its own.
const sheets = files.filter((f) => f.endsWith('.css') && !f.startsWith('lessonFile'))
const modules = sheets.filter((f) => f.endsWith('.module.css'))
const read = (file: string) => readFileSync(join(src, file), 'utf8')

/** The classes that begin a selector: what the sheet is about. */
const subjects = (css: string) =>
  new Set(
    [...css.replace(/\/\*.*?\*\//gs, '').matchAll(/(?:^|[{},])\s*\.([a-zA-Z_][\w-]*)/g)]
      .map((m) => m[1]!)
      .filter((name) => !name.startsWith('mantine-')),
  )

describe('the look', () => {
  it('has every class in one stylesheet', () => {
    const homes = new Map<string, string[]>()
    for (const file of sheets)
      for (const name of subjects(read(file))) homes.set(name, [...(homes.get(name) ?? []), file])
    expect([...homes].filter(([, all]) => all.length > 1)).toEqual([])
  })

  it.each(modules)('%s stands beside what it dresses, and is brought in there', (file) => {
    const beside = files.filter((f) => f.endsWith('.tsx') && f.startsWith(`${dirname(file)}/`))
    const users = beside.filter((f) => read(f).includes(`/${basename(file)}'`))
    expect(users.length).toBeGreaterThan(0)
  })

  it('keeps its colours in one place', () => {
    for (const file of modules)
      expect([file, /^\s*--(?!mantine)[\w-]+:/m.test(read(file))]).toEqual([file, false])
  })
})
