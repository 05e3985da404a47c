import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { en as first } from '../src/texts/en.ts'
import { ENGLISH } from '@velvet-porch/core/messages'
import { stages } from '../src/texts/stages.ts'

const en = { ...first, ...stages }

function leaves(tree: object, path = ''): [string, string][] {
  return Object.entries(tree).flatMap(([key, value]) => {
    const here = path ? `${path}.${key}` : key
    return typeof value === 'string' ? [[here, value] as [string, string]] : leaves(value as object, here)
  })
}

function sources(folder: URL): string {
  return readdirSync(folder, { withFileTypes: true })
    .map((entry) => {
      const at = new URL(entry.name + (entry.isDirectory() ? '/' : ''), folder)
      if (entry.isDirectory()) return entry.name === 'en' || entry.name === 'english' ? '' : sources(at)
      return entry.name === 'en.ts' ? '' : readFileSync(at, 'utf8')
    })
    .join('\n')
}

const code = sources(new URL('../src/', import.meta.url))

describe('the catalogue', () => {
  it('has no text that nobody shows', () => {
    const unused = leaves(en)
      .map(([key]) => key.replace(/_(one|other)$/, ''))
      // What the core says is asked for by its codes.
      .filter((key) => !key.startsWith('said.'))
      .filter((key) => {
        const parent = key.split('.').slice(0, -1).join('.')
        return !code.includes(`'${key}'`) && !code.includes(`\`${parent}.\${`)
      })
    expect(unused).toEqual([])
  })

  it('has nothing for the core that the core does not say', () => {
    const core = sources(new URL('../../core/src/', import.meta.url))
    const groups: readonly string[] = ['editing', 'arranging', 'features']
    const said = (group: string, entry: string) =>
      core.includes(`'${group}.${entry}'`) || (groups.includes(group) && core.includes(`'${entry}'`))
    const silent = Object.entries(ENGLISH).flatMap(([group, entries]) =>
      Object.keys(entries)
        .map((key) => key.replace(/_(one|other)$/, ''))
        .filter((entry) => !said(group, entry) && !['pattern', 'accompanying'].includes(group))
        .map((entry) => `${group}.${entry}`),
    )
    expect(silent).toEqual(['reading.notKept'])
  })

  it('has every text that is asked for by name', () => {
    const keys = new Set(leaves(en).map(([key]) => key.replace(/_(one|other)$/, '')))
    const asked = [...code.matchAll(/\bt\(\s*'([a-z]+\.[\w.]+)'/g)].map((m) => m[1]!)
    expect(asked.length).toBeGreaterThan(80)
    expect(asked.filter((k) => !keys.has(k))).toEqual([])
  })

  it('has what the first page asks for without the texts of the stages', () => {
    const keys = new Set(leaves(first).map(([key]) => key.replace(/_(one|other)$/, '')))
    const own = ['features/shelf', 'app'].map((folder) =>
      sources(new URL(`../src/${folder}/`, import.meta.url)),
    )
    const asked = [...own.join('\n').matchAll(/\bt\(\s*'([a-z]+\.[\w.]+)'/g)].map((m) => m[1]!)
    expect(asked.length).toBeGreaterThan(60)
    expect(asked.filter((k) => !keys.has(k))).toEqual([])
  })

  it('has a word for every term of the solver and every part of effort', () => {
    const core = ['staticCost', 'transition', 'voiceCost', 'heldShapeCost']
      .map((name) =>
        readFileSync(new URL(`../../core/src/arrange/search/${name}.ts`, import.meta.url), 'utf8'),
      )
      .join('\n')
    const terms = [...core.matchAll(/add\(\s*'(\w+)'|\bcut\(\s*'(\w+)'|term: '(\w+)'/g)].flatMap((m) =>
      m.slice(1).filter(Boolean),
    )
    expect(terms.length).toBeGreaterThan(40)
    for (const term of terms) expect(Object.keys(en.reasons.term)).toContain(term)
  })
})
